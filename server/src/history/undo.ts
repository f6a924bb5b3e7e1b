import { json, type Db } from '../db/pool';
import { AppError } from '../errors';
import { noteUndone, standingEntries, type History } from './store';

/** How far back is looked for something to take back. */
const DEEPEST = 20;

/** What can be taken back: the latest entry that stands; those after it have nothing left of them to take back. */
export interface WayBack<Body> {
  entry: { id: string; words: string; at: number; body: Body } | null;
  spent: string[];
}

export async function wayBack<Body>(
  db: Db,
  history: History,
  courseId: string,
  isSpent: (body: Body) => boolean,
): Promise<WayBack<Body>> {
  const spent: string[] = [];
  for (const { id, words, at, body } of await standingEntries(db, history, courseId, DEEPEST)) {
    const entry = { id, words, at, body: json<Body>(body) };
    if (!isSpent(entry.body)) return { entry, spent };
    spent.push(id);
  }
  return { entry: null, spent };
}

/** Notes that an entry is taken back, which must be the one that can be; those that are spent are marked with it. */
export async function takeBack<Body>(
  db: Db,
  history: History,
  { entry, spent }: WayBack<Body>,
  asked: string,
  now: number,
) {
  if (spent.includes(asked)) throw new AppError('spent');
  if (entry?.id !== asked) throw new AppError('not-latest');
  await noteUndone(db, history, now, [...spent, asked]);
  return entry;
}
