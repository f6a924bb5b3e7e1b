import type { TableSound } from '@nimble-bell/core/api';
import { keepsTables, type Watcher } from '@nimble-bell/core/recording';
import { CLASS, evolve, namesIn, newRoom, tablesHad } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import type { Db } from '../../db/pool';
import { eventsOf } from '../../room/store';
import { allPartsOf, type RecordingRow } from '../store';
import { tablesMadeAt, tablesOf, type TableRow } from './store';

type HadTable = Omit<TableSound, 'path'> & Pick<TableRow, 'file'>;

/**
 * What was said at the tables of a class, as far as it is somebody's to hear: who sat there, and those who teach; nobody,
 * where the plan has come to leave it out. Null while it is made.
 */
export async function tablesTo(db: Db, row: RecordingRow, watcher: Watcher): Promise<HadTable[] | null> {
  if (!keepsTables(row.plan)) return [];
  const parts = (await allPartsOf(db, row.id)).filter((p) => p.place !== CLASS && p.until > p.from);
  if (!parts.length) return [];
  const [events, sounds, madeAt] = await Promise.all([
    eventsOf(db, row.sessionId),
    tablesOf(db, row.id),
    tablesMadeAt(db, row.id),
  ]);
  const had = tablesHad(events.reduce(evolve, newRoom()), watcher);
  if (madeAt === null) return had.some((t) => parts.some((p) => p.place === t.place)) ? null : [];
  const nameOf = namesIn(events);
  const named = teaches(watcher.role) && !row.plan?.leavesOut?.includes('names');
  return sounds
    .flatMap(({ place, lengthMs, file }) => {
      const table = had.find((t) => t.place === place);
      if (!table) return [];
      const at = parts.find((p) => p.place === place)!.from;
      const members = named ? table.members.map(nameOf) : [];
      return [{ place, name: table.name, at, lengthMs, members, file }];
    })
    .sort((a, b) => a.at - b.at || a.name.localeCompare(b.name, undefined, { numeric: true }));
}
