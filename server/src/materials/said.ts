import { AppError } from '../errors';
import type { Db } from '../db/pool';
import { materialById, type MaterialRow } from './store';

/** A session of a course, in whose room a file is spoken of. */
export interface OfSession {
  course: string;
  session: string;
}
/** A file as a page names it. */
export interface Said {
  material: string;
  name: string;
}

/** The file or link that is meant: of this course, by its name, of this session or of none. */
export async function saidOf(
  db: Db,
  { course, session }: OfSession,
  { material, name }: Said,
): Promise<MaterialRow | null> {
  const row = await materialById(db, material);
  const its = row?.courseId === course && (row.sessionId === null || row.sessionId === session);
  return its && row.name === name ? row : null;
}

/** What is given to a class to work with is the class's to open. */
export async function needGiven(db: Db, of: OfSession, all: readonly Said[]): Promise<void> {
  for (const said of all) {
    const row = await saidOf(db, of, said);
    if (!row || row.forTeachers)
      throw new AppError('not-found', `The class has no file “${said.name}”. Give it to the class first.`);
  }
}
