import type { CutList } from '@nimble-bell/core/recording';
import { newId } from '../../context';
import { json, one, rows, run, type Db } from '../../db/pool';
import type { PictureFile } from '../store';

export interface CutRow extends CutList {
  number: number;
  by: string;
  at: number;
}

/** The number of the cut in force, held until the transaction ends: of two who cut at once the second sees the first. */
export const holdCut = async (db: Db, recording: string): Promise<number | null> =>
  (await one<{ cut: number | null }>(db, 'SELECT cut FROM recordings WHERE id = ? FOR UPDATE', [recording]))
    ?.cut ?? null;

/** How a recording was cut, the newest first. */
export const cutsOf = async (db: Db, recording: string): Promise<CutRow[]> =>
  (
    await rows<{ number: number; marks: unknown; nobody: unknown; by: string; at: number }>(
      db,
      `SELECT k.number, k.marks, k.nobody, COALESCE(m.called, 'Somebody') AS \`by\`, k.made_at AS at
         FROM recording_cuts k LEFT JOIN members m ON m.id = k.made_by WHERE k.recording_id = ? ORDER BY k.number DESC`,
      [recording],
    )
  ).map(({ number, marks, nobody, by, at }) => ({
    ...{ number, by, at: Number(at) },
    marks: json<CutList['marks']>(marks),
    nobody: json<CutList['nobody']>(nobody),
  }));

/** Another cut; gives its number. */
export async function insertCut(
  db: Db,
  { recording, marks, nobody, by, at }: CutList & { recording: string; by: string; at: number },
): Promise<number> {
  const last = await one<{ n: number | null }>(
    db,
    'SELECT MAX(number) AS n FROM recording_cuts WHERE recording_id = ?',
    [recording],
  );
  const number = (last?.n ?? 0) + 1;
  await run(
    db,
    'INSERT INTO recording_cuts (recording_id, number, marks, nobody, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?)',
    [recording, number, JSON.stringify(marks), JSON.stringify(nobody), by, at],
  );
  return number;
}

/** This cut is in force from now on, or none; what is told by it is made before anybody is told. */
export async function enforceCut(db: Db, recording: string, number: number | null, now: number) {
  await run(db, 'UPDATE recordings SET cut = ?, words_at = NULL WHERE id = ?', [number, recording]);
  if (number !== null) await makeCutAnew(db, recording, number, now);
  else await queueCut(db, recording, now);
}

export async function makeCutAnew(db: Db, recording: string, number: number, now: number) {
  await run(
    db,
    "UPDATE recording_cuts SET state = 'preparing', progress = 0, file = NULL, pictures = NULL, bytes = 0 WHERE recording_id = ? AND number = ?",
    [recording, number],
  );
  await queueCut(db, recording, now);
}

const queueCut = (db: Db, recording: string, now: number) =>
  run(db, "INSERT INTO jobs (kind, job_key, payload, due_at) VALUES ('cut', ?, ?, ?)", [
    `cut/${recording}/${newId()}`,
    JSON.stringify({ recording }),
    now,
  ]);

/** Gives whether it is still in force. */
export const noteCutting = async (db: Db, recording: string, number: number, progress: number) =>
  (
    await run(
      db,
      `UPDATE recording_cuts k JOIN recordings r ON r.id = k.recording_id AND r.cut = k.number
          SET k.progress = ? WHERE k.recording_id = ? AND k.number = ?`,
      [progress, recording, number],
    )
  ).affectedRows > 0 ||
  (await one(db, 'SELECT id FROM recordings WHERE id = ? AND cut = ?', [recording, number])) !== null;

export interface MadeCut {
  file: string;
  pictures: readonly PictureFile[];
  bytes: number;
}

/** What was made of a cut, before anybody is told of it; without the pictures of who was forgotten meanwhile. */
export async function keepCut(db: Db, recording: string, number: number, { file, pictures, bytes }: MadeCut) {
  const there = await rows<{ member: string }>(
    db,
    'SELECT DISTINCT member_id AS member FROM recording_pictures WHERE recording_id = ? AND member_id IS NOT NULL LOCK IN SHARE MODE',
    [recording],
  );
  const kept = pictures.filter((p) => p.member === null || there.some((t) => t.member === p.member));
  await run(
    db,
    'UPDATE recording_cuts SET file = ?, pictures = ?, bytes = ?, progress = 1 WHERE recording_id = ? AND number = ?',
    [file, JSON.stringify(kept), bytes, recording, number],
  );
}

/** A student's pictures of every recording go, in cuts as well; the files with the next work on each. */
export async function forgetPictures(db: Db, member: string, now: number) {
  const found = await rows<{ recording: string }>(
    db,
    'SELECT DISTINCT recording_id AS recording FROM recording_pictures WHERE member_id = ? FOR UPDATE',
    [member],
  );
  for (const { recording } of found) {
    const cuts = await rows<{ number: number; pictures: unknown }>(
      db,
      'SELECT number, pictures FROM recording_cuts WHERE recording_id = ? AND pictures IS NOT NULL FOR UPDATE',
      [recording],
    );
    for (const { number, pictures } of cuts) {
      const rest = json<PictureFile[]>(pictures).filter((p) => p.member !== member);
      await run(db, 'UPDATE recording_cuts SET pictures = ? WHERE recording_id = ? AND number = ?', [
        JSON.stringify(rest),
        recording,
        number,
      ]);
    }
    // They may be in what others took along of it.
    await run(db, "UPDATE recording_exports SET state = 'cancelled' WHERE recording_id = ?", [recording]);
    await queueCut(db, recording, now);
  }
  await run(db, 'DELETE FROM recording_pictures WHERE member_id = ?', [member]);
}

export const noteCut = (db: Db, recording: string, number: number, state: 'ready' | 'failed') =>
  run(db, 'UPDATE recording_cuts SET state = ? WHERE recording_id = ? AND number = ?', [
    state,
    recording,
    number,
  ]);

/** Of the cuts that are not in force nothing is kept but how they were made. */
export const forgetOtherCuts = (db: Db, recording: string, number: number | null) =>
  run(
    db,
    "UPDATE recording_cuts SET state = 'preparing', file = NULL, pictures = NULL, bytes = 0 WHERE recording_id = ? AND number <> ?",
    [recording, number ?? 0],
  );
