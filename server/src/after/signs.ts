import { afterRules } from '@nimble-bell/core/after';
import type { AfterSigns } from '@nimble-bell/core/roll';
import type { LayeredSession } from '../courses/store';
import type { Db } from '../db/pool';
import { partsTaken, watchedIn } from './store';

/** What is known of each and each session beside the roll; nothing where it is not counted. */
export async function signsOf(
  db: Db,
  held: readonly LayeredSession[],
): Promise<(session: string, member: string) => AfterSigns | null> {
  const { participation, watching } = afterRules(held.at(-1)?.layers ?? []);
  if (!participation || !watching) return () => null;
  const ids = held.map((s) => s.id);
  const [parts, { recorded, watched }] = await Promise.all([partsTaken(db, ids, null), watchedIn(db, ids)]);
  const took = new Set(
    parts
      .filter((p) => p.spokenMs || p.written || p.hands || p.answers)
      .map((p) => `${p.session}/${p.member}`),
  );
  return (session, member) => ({
    tookPart: took.has(`${session}/${member}`),
    recorded: recorded.has(session),
    watched: watched.has(`${session}/${member}`),
  });
}
