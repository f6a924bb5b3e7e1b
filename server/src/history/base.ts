import type { Request } from 'express';
import { countWords, instantWords, listWords } from '@nimble-bell/core/calendar';
import type { Db } from '../db/pool';
import { AppError } from '../errors';
import { entriesAfter, latestOf, type History } from './store';

/**
 * The state of a course that an edit was made on (`If-Match`, RFC 9110 §13.1.1): its history's latest entry then. Null
 * where it is made on whatever there is.
 */
export function baseOf(req: Request): string | null {
  const tag = req.get('if-match');
  return tag === undefined || tag === '*' ? null : tag.replaceAll('"', '');
}

const SHOWN = 3;

/**
 * Refuses an edit that was made on a state which is no more, and says who changed what since: the person looks, and
 * decides. Gives the state that it is made on now. Asked when the course's turn is had.
 */
export async function stillOn(
  db: Db,
  history: History,
  course: { id: string; term: { zone: string } },
  base: string | null,
): Promise<string> {
  const latest = await latestOf(db, history, course.id);
  if (base === null || base === latest) return latest;
  const since = await entriesAfter(db, history, course.id, base);
  const said = since
    .slice(0, SHOWN)
    .map((c) => `${c.by}, ${instantWords(c.at, course.term.zone)}: ${c.words}`);
  if (since.length > SHOWN) said.push(countWords(since.length - SHOWN, 'more change', 'more changes'));
  const what = { plan_changes: 'The plan', list_changes: 'The class list', rule_changes: 'The rules' }[
    history
  ];
  throw new AppError(
    'moved-on',
    `${what} ${history === 'rule_changes' ? 'were' : 'was'} changed since you looked. ${listWords(said)}. See what yours does now, and save it again if it is still right.`,
  );
}
