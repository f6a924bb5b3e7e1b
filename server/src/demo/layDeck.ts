import { createHash } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Context } from '../context';
import { newId } from '../context';
import type { Db } from '../db/pool';
import { placeOf } from '../files/receive';
import { insertMaterial } from '../materials/store';
import { plainPdf, type PlainPage } from './plainPdf';

const stream = (of: number) =>
  Array.from({ length: 60 }, (_, i) => 0.5 + of * Math.sin((i / 59) * 4 * Math.PI));

/** The pages of the lecture that comes next. */
const PAGES: readonly PlainPage[] = [
  { title: 'Tidal streams', lines: ['Where the water goes while it rises and falls'] },
  {
    title: 'Level and stream',
    lines: ['The level says how deep', 'The stream says how fast, and where to'],
    curve: stream(0.42),
  },
  {
    title: 'Slack water',
    lines: ['The stream turns', 'Not always at high or low water', 'In this harbour: forty minutes after'],
  },
  {
    title: 'When is the stream strongest?',
    lines: ['A) At high water', 'B) Half way between', 'C) At low water', 'D) It is always the same'],
  },
  {
    title: 'Springs and neaps',
    lines: ['At springs up to 3.1 knots', 'At neaps half of that'],
    curve: stream(0.2),
  },
  {
    title: 'The diamond on the chart',
    lines: ['A letter in a diamond', 'A table in the margin', 'Hours before and after high water'],
  },
  { title: 'Is the flood longer than the ebb here?', lines: ['(Yes or no)'] },
  { title: 'For Thursday', lines: ['Chart 4012, diamonds C and F', 'Work out the stream at 16:30'] },
];

/** Pages to be shown in a session, among its files. */
export async function layDeck(
  ctx: Context,
  db: Db,
  of: { course: string; session: string; by: string },
): Promise<void> {
  const file = plainPdf(PAGES);
  const hash = createHash('sha256').update(file).digest('hex');
  const place = placeOf(path.join(ctx.config.dataDir, 'materials'), hash);
  await mkdir(path.dirname(place), { recursive: true });
  await writeFile(place, file);
  await insertMaterial(db, {
    ...{ id: newId(), courseId: of.course, sessionId: of.session, by: of.by, at: ctx.now() },
    ...{ name: 'Tidal streams.pdf', url: null, hash, type: 'application/pdf', bytes: file.length },
    // Students have its pages as they are shown.
    forTeachers: true,
  });
}
