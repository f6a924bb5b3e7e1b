import type { PictureSlice } from '@nimble-bell/core/recording';
import { json, one, rows, run, type Db } from '../../db/pool';

/** How far one of the relay's files was read: its bytes, and when what was cut of it ended, ms after its first packet. */
export interface Reached {
  bytes: number;
  /** From which byte the next cut looks at what came before; what was cut by an older release does not say. */
  look?: number;
  ended: number | null;
}

/** A picture as it was cut, in ms of its part. */
export type CutPicture = PictureSlice & { role: string };

export interface Piece {
  number: number;
  /** ms of its part */
  until: number;
  /** Nothing of its part comes after it. */
  over: boolean;
  /** By the relay's files. */
  reached: Record<string, Reached>;
  /** Whose voices are in it. */
  heard: string[];
  slices: CutPicture[];
}

/** The pieces of a part in their order. */
export const piecesOf = async (db: Db, part: string): Promise<Piece[]> =>
  (
    await rows<{
      number: number;
      until: number;
      over: number;
      reached: unknown;
      heard: unknown;
      slices: unknown;
    }>(
      db,
      'SELECT number, until_ms AS `until`, ended AS `over`, reached, heard, slices FROM recording_pieces WHERE part_id = ? ORDER BY number',
      [part],
    )
  ).map((p) => ({
    number: p.number,
    until: Number(p.until),
    over: Boolean(p.over),
    reached: json(p.reached),
    heard: json(p.heard),
    slices: json(p.slices),
  }));

export const keepPiece = (db: Db, part: string, { number, until, over, reached, heard, slices }: Piece) =>
  run(
    db,
    'REPLACE INTO recording_pieces (part_id, number, until_ms, ended, reached, heard, slices) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [part, number, until, over, JSON.stringify(reached), JSON.stringify(heard), JSON.stringify(slices)],
  );

export const forgetPieces = (db: Db, recording: string) =>
  run(
    db,
    'DELETE p FROM recording_pieces p JOIN recording_parts r ON r.id = p.part_id WHERE r.recording_id = ?',
    [recording],
  );

export const partBy = (db: Db, part: string) =>
  one<{ recording: string; from: number; until: number | null }>(
    db,
    'SELECT recording_id AS recording, started_at AS `from`, ended_at AS `until` FROM recording_parts WHERE id = ?',
    [part],
  );

/** A piece is made as soon as what belongs to it has come. */
export const queuePiece = (db: Db, part: string, number: number, due: number) =>
  run(db, "INSERT IGNORE INTO jobs (kind, job_key, payload, due_at) VALUES ('piece', ?, ?, ?)", [
    `piece/${part}/${number}`,
    JSON.stringify({ part }),
    due,
  ]);

/**
 * While `work` is done nobody else works on this recording; held by this connection, and let go with it.
 */
export async function alone<T>(db: Db, recording: string, work: () => Promise<T>): Promise<T> {
  const name = `nb-recording-${recording}`;
  const got = await one<{ got: number | null }>(db, 'SELECT GET_LOCK(?, 600) AS got', [name]);
  if (got?.got !== 1) throw new Error('Somebody else is at work on this recording.');
  try {
    return await work();
  } finally {
    await one(db, 'SELECT RELEASE_LOCK(?) AS done', [name]);
  }
}
