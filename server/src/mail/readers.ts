import type { CalendarCopy } from '@nimble-bell/core/calendar';
import { json, type Db } from '../db/pool';
import { membersWhere, type MemberRow } from '../accounts/store';
import { copiesOf, membersGone } from './store';

/** Whom a letter is for, and what their calendar holds by the letters they had. */
export interface Reader {
  member: MemberRow;
  /** Whether they are on the class list now. */
  onList: boolean;
  held: Map<string, CalendarCopy>;
}

/** Readers by member id; those who left the list too, who are written to once more. */
export async function readersOf(
  db: Db,
  ids: readonly string[],
  { lock = false } = {},
): Promise<Map<string, Reader>> {
  const readers = new Map<string, Reader>();
  if (!ids.length) return readers;
  const [on, gone, copies] = await Promise.all([
    membersWhere(db, 'm.id IN (?)', [ids]),
    membersGone(db, ids),
    copiesOf(db, ids, lock),
  ]);
  for (const member of on) readers.set(member.id, { member, onList: true, held: new Map() });
  for (const m of gone)
    readers.set(m.id, {
      member: {
        ...m,
        scope: { series: [], sessions: [] },
        capabilities: [],
        linkUntil: null,
        hasAccount: false,
        calendarSecret: null,
        quiet: [],
      },
      onList: false,
      held: new Map(),
    });
  for (const { member, key, body } of copies) readers.get(member)?.held.set(key, json(body));
  return readers;
}
