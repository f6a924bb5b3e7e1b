import { AppError } from '../errors';
import type { Db } from '../db/pool';
import { materialById } from '../materials/store';

/** Whether a file can be watched or listened to together. */
export const isFilm = (type: string | null): boolean => /^(video|audio)\//.test(type ?? '');

/** What is shown is a film of this course, by its name, of this session or of none. */
export async function needFilm(
  db: Db,
  { course, session }: { course: string; session: string },
  { material, name }: { material: string; name: string },
): Promise<void> {
  const row = await materialById(db, material);
  const its = row?.courseId === course && (row.sessionId === null || row.sessionId === session);
  if (!its || row.name !== name || !isFilm(row.type))
    throw new AppError('not-found', 'There is no such film.');
}
