import { listWords } from '../calendar/words';
import { CAPABILITY_IDS, PERMISSIONS, rowOf, type Capability, type Permission } from './capabilities';
import type { SomeLimits } from './schema';
import { PERMISSION_WORDS } from './words';

/** Everything that a table needs for its work is open there. */
export const OPEN_AT_TABLES: SomeLimits = Object.fromEntries(
  CAPABILITY_IDS.filter((c) => rowOf(c).table).map((c) => [c, 'open']),
);

/** Of limits, what can be otherwise at a table: what one does there. What is seen of one another is the class's. */
export const doneAtTables = (limits: SomeLimits): SomeLimits =>
  Object.fromEntries(
    (Object.entries(limits) as [Capability, Permission][]).filter(([c]) => rowOf(c).group !== 'seeing'),
  );

/** What holds at the tables, or at one, in a line. */
export function tablesWords({ limits, sheet }: { limits: SomeLimits; sheet: string }, all: boolean): string {
  const where = all ? 'At the tables' : 'At this table';
  if (sheet) return `${where} it is now as in ${sheet}.`;
  const said = PERMISSIONS.flatMap((state) => {
    const doings = CAPABILITY_IDS.filter((c) => limits[c] === state).map((c) => rowOf(c).doing.toLowerCase());
    return doings.length ? [`${PERMISSION_WORDS[state].toLowerCase()}: ${listWords(doings)}`] : [];
  });
  return said.length ? `${where} now ${said.join('; ')}.` : `${where} it is now as in the class.`;
}
