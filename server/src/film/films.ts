import { AppError } from '../errors';
import type { Db } from '../db/pool';
import { saidOf, type OfSession, type Said } from '../materials/said';

/** Whether a file can be watched or listened to together. */
export const isFilm = (type: string | null): boolean => /^(video|audio)\//.test(type ?? '');

/** What is shown is a film of this course, by its name, of this session or of none. */
export async function needFilm(db: Db, of: OfSession, said: Said): Promise<void> {
  const row = await saidOf(db, of, said);
  if (!row || !isFilm(row.type)) throw new AppError('not-found', 'There is no such film.');
}
