import { afterRules } from '@nimble-bell/core/after';
import type { RecordingInfo, RecordingPlan, Role, SeriesKind } from '@nimble-bell/core/api';
import {
  AWAY_MS,
  lengthTold,
  planOf,
  silencesTold,
  toldBy,
  type Chapter,
  type CutList,
  type Part,
  type Picture,
  type Stretch,
} from '@nimble-bell/core/recording';
import { CLASS, type Place } from '@nimble-bell/core/room';
import type { Layer } from '@nimble-bell/core/settings';
import { newId } from '../context';
import { json, one, rows, run, type Db } from '../db/pool';
import { layersFrom } from '../sessions/store';
import { pieceDue } from './pieces/due';
import { queuePiece } from './pieces/store';

/** A picture and its file; whose it is where it is a student's, else null. */
export type PictureFile = Picture & { file: string; member: string | null };

/** What there is to watch of a recording; times and lengths in ms. */
interface Film {
  state: RecordingInfo['state'];
  progress: number;
  lengthMs: number;
  file: string | null;
  silences: Stretch[];
}

/** A recording, its film as it is cut now. */
export interface RecordingRow extends Film {
  id: string;
  sessionId: string;
  seriesId: string;
  courseId: string;
  title: string;
  startsAt: number;
  endsAt: number;
  bytes: number;
  /** Its film as it was recorded. */
  whole: Film;
  /** How it is cut, and what is seen of it then; null where it is not. */
  cut: (CutList & { number: number; pictures: PictureFile[] }) | null;
  /** What is told of what was recorded. */
  told: Stretch[];
  /** As somebody wrote them, in ms of what was recorded; null where nobody did. */
  chapters: Chapter[] | null;
  /** When its sound was levelled and its silences known; null before. */
  finishedAt: number | null;
  plan: RecordingPlan | null;
  kind: SeriesKind;
  group: string | null;
  published: boolean;
  /** Whether it is counted who watches it. */
  counts: boolean;
  takenAt: number | null;
  /** The moment whose picture stands for it, ms of what was recorded; null where nobody chose. */
  stillMs: number | null;
  /** Whether anything is seen in it. */
  pictured: boolean;
}

const RECORDING = `SELECT r.id, r.session_id AS sessionId, s.series_id AS seriesId, s.course_id AS courseId, COALESCE(r.title, CONCAT(q.title, ' ', s.number)) AS title,
                          r.taken_at AS takenAt, s.starts_at AS startsAt,
                          s.ends_at AS endsAt, r.state, r.progress, r.length_ms AS lengthMs, r.bytes + COALESCE(k.bytes, 0) AS bytes,
                          r.file, r.finished_at AS finishedAt, r.silences, r.chapters, q.kind,
                          k.number AS cutNumber, k.marks, k.nobody, k.state AS cutState, k.progress AS cutProgress,
                          k.file AS cutFile, k.pictures AS cutPictures, r.still_ms AS stillMs,
                          EXISTS (SELECT 1 FROM recording_pictures p WHERE p.recording_id = r.id AND p.member_id IS NULL) AS pictured,
                          (SELECT CAST(settings AS CHAR) FROM college) AS ofCollege, CAST(c.settings AS CHAR) AS ofCourse,
                          CAST(q.settings AS CHAR) AS ofSeries, CAST(s.settings AS CHAR) AS ofSession, q.group_name AS \`group\`,
                          IF(q.kind = 'capture', s.posted_at, q.published_at) IS NOT NULL AS published
                     FROM recordings r JOIN sessions s ON s.id = r.session_id
                     JOIN series q ON q.id = s.series_id JOIN courses c ON c.id = s.course_id
                     LEFT JOIN recording_cuts k ON k.recording_id = r.id AND k.number = r.cut`;

/** What its places say, from the college to the session, as text. */
export interface Said {
  ofCollege: string;
  ofCourse: string;
  ofSeries: string;
  ofSession: string;
}
/** A cut as it is stored, where one is in force. */
interface RawCut {
  cutNumber: number | null;
  marks: unknown;
  nobody: unknown;
  cutState: 'preparing' | 'ready' | 'failed';
  cutProgress: number;
  cutFile: string | null;
  cutPictures: unknown;
}
type Read = 'plan' | 'counts' | 'silences' | 'whole' | 'cut' | 'told' | 'chapters';
type RawRecording = Omit<RecordingRow, Read> & Said & RawCut & { silences: unknown; chapters: unknown };

const layersSaid = ({ ofCollege, ofCourse, ofSeries, ofSession }: Said): Layer[] =>
  layersFrom({
    ...{ college: ofCollege, course: ofCourse, series: ofSeries, session: ofSession },
    record: null,
  });
export const planSaid = (said: Said): RecordingPlan | null => planOf(layersSaid(said));

const listIn = <T>(value: unknown): T[] => (value === null ? [] : json<T[]>(value));

const cutIn = (raw: RawCut): RecordingRow['cut'] =>
  raw.cutNumber === null
    ? null
    : {
        number: raw.cutNumber,
        marks: listIn(raw.marks),
        nobody: listIn(raw.nobody),
        pictures: listIn<Omit<PictureFile, 'member'> & Partial<PictureFile>>(raw.cutPictures).map((p) => ({
          member: null,
          ...p,
        })),
      };

function read(raw: RawRecording): RecordingRow {
  const { id, sessionId, seriesId, courseId, title, startsAt, endsAt, kind, group, takenAt } = raw;
  const { state, progress, file, finishedAt } = raw;
  const lengthMs = Number(raw.lengthMs);
  const whole: Film = { state, progress, lengthMs, file, silences: listIn(raw.silences) };
  const cut = cutIn(raw);
  const told = cut ? toldBy(cut.marks, lengthMs) : [{ from: 0, until: lengthMs }];
  return {
    ...{ id, sessionId, seriesId, courseId, title, startsAt, endsAt, kind, group, takenAt, finishedAt },
    bytes: Number(raw.bytes),
    plan: planSaid(raw),
    published: Boolean(raw.published),
    stillMs: raw.stillMs === null ? null : Number(raw.stillMs),
    pictured: cut ? cut.pictures.some((p) => p.member === null) : Boolean(raw.pictured),
    counts: afterRules(layersSaid(raw)).watching,
    ...{ whole, cut, told },
    chapters: raw.chapters === null ? null : json<Chapter[]>(raw.chapters),
    ...(cut
      ? {
          // What is cut is as far as what is made of it; nothing of it is told before.
          state: state === 'ready' ? raw.cutState : state,
          progress: raw.cutProgress,
          file: raw.cutFile,
          lengthMs: lengthTold(told),
          silences: silencesTold(whole.silences, told),
        }
      : whole),
  };
}

/** The same as it was recorded, for those who cut it. */
export const asRecorded = (row: RecordingRow): RecordingRow => ({
  ...row,
  ...row.whole,
  cut: null,
  told: [{ from: 0, until: row.whole.lengthMs }],
});

export const recordingsWhere = async (
  db: Db,
  column: 's.course_id' | 's.id' | 'r.id',
  value: string | string[],
) =>
  (
    await rows<RawRecording>(db, `${RECORDING} WHERE ${column} IN (?) ORDER BY s.starts_at DESC`, [
      [value].flat(),
    ])
  ).map(read);

/** What a course has recorded so far: bytes, and ms. */
export const recordedOf = async (db: Db, course: string): Promise<{ bytes: number; lengthMs: number }> => {
  const sums = await one<{ bytes: number; lengthMs: number }>(
    db,
    `SELECT COALESCE(SUM(r.bytes), 0) AS bytes, COALESCE(SUM(r.length_ms), 0) AS lengthMs
       FROM recordings r JOIN sessions s ON s.id = r.session_id WHERE r.state = 'ready' AND s.course_id = ?`,
    [course],
  );
  return { bytes: Number(sums!.bytes), lengthMs: Number(sums!.lengthMs) };
};

export const coursesWithRecordings = async (db: Db): Promise<string[]> =>
  (
    await rows<{ id: string }>(
      db,
      "SELECT DISTINCT s.course_id AS id FROM recordings r JOIN sessions s ON s.id = r.session_id WHERE r.state = 'ready'",
    )
  ).map((r) => r.id);

export const recordingOf = (db: Db, session: string) =>
  one<{ id: string }>(db, 'SELECT id FROM recordings WHERE session_id = ?', [session]);

/**
 * Begins a part of a session's recording in a place of its room; the recording itself with the first. What is said at
 * tables is made after the class's, which somebody waits for.
 */
export async function openPart(
  db: Db,
  session: string,
  { place, at }: { place: Place; at: number },
): Promise<void> {
  await run(db, 'INSERT IGNORE INTO recordings (id, session_id) VALUES (?, ?)', [newId(), session]);
  const part = newId();
  await run(
    db,
    'INSERT INTO recording_parts (id, recording_id, place, started_at) SELECT ?, id, ?, ? FROM recordings WHERE session_id = ?',
    [part, place, at, session],
  );
  if (place === CLASS) await queuePiece(db, part, 0, pieceDue(at, 0));
}

/** Ends whatever parts are open. */
export const closeParts = (db: Db, session: string, at: number) =>
  run(
    db,
    `UPDATE recording_parts SET ended_at = GREATEST(?, started_at)
      WHERE ended_at IS NULL AND recording_id = (SELECT id FROM recordings WHERE session_id = ?)`,
    [at, session],
  );

/** The parts of a session's recording that are open, by their places. */
export const openPartsOf = async (db: Db, session: string): Promise<Map<Place, string>> =>
  new Map(
    (
      await rows<{ id: string; place: Place }>(
        db,
        `SELECT p.id, p.place FROM recording_parts p JOIN recordings r ON r.id = p.recording_id
          WHERE r.session_id = ? AND p.ended_at IS NULL ORDER BY p.started_at`,
        [session],
      )
    ).map((p) => [p.place, p.id]),
  );

/** A session's recording, if there is one, is prepared as soon as somebody has time for it. */
export async function queuePreparing(db: Db, session: string, now: number): Promise<void> {
  const recording = await recordingOf(db, session);
  if (!recording) return;
  await run(db, "UPDATE recordings SET state = 'preparing' WHERE id = ?", [recording.id]);
  await run(db, "INSERT IGNORE INTO jobs (kind, job_key, payload, due_at) VALUES ('prepare', ?, ?, ?)", [
    `prepare/${recording.id}`,
    JSON.stringify({ recording: recording.id }),
    now,
  ]);
}

/** `ahead`: by how much the time in force is ahead of the machine's clock, ms. */
export const addTrack = (
  db: Db,
  part: string,
  { member, base, ahead }: { member: string; base: string; ahead: number },
) =>
  run(db, 'INSERT INTO recording_tracks (part_id, member_id, base, ahead_ms) VALUES (?, ?, ?, ?)', [
    part,
    member,
    base,
    ahead,
  ]);

/** A part of a recording in a place of its room. */
type PlacedPart = Part & { id: string; place: Place };

/** All parts of a recording in their order; one that is open still ends where it began. Instants in ms. */
export const allPartsOf = async (db: Db, recording: string): Promise<PlacedPart[]> =>
  (
    await rows<{ id: string; place: Place; from: number; until: number | null }>(
      db,
      'SELECT id, place, started_at AS `from`, ended_at AS until FROM recording_parts WHERE recording_id = ? ORDER BY started_at',
      [recording],
    )
  ).map(({ from, until, ...part }) => ({ ...part, from: Number(from), until: Number(until ?? from) }));

/** Those of the class: what its recording is. */
export const partsOf = async (db: Db, recording: string): Promise<PlacedPart[]> =>
  (await allPartsOf(db, recording)).filter((p) => p.place === CLASS);

/** Everyone's tracks of a part: also of those who have left the class list since. */
export const tracksOf = (db: Db, part: string) =>
  rows<{ base: string; member: string; role: Role; ahead: number | null }>(
    db,
    `SELECT t.base, t.member_id AS member, m.role, t.ahead_ms AS ahead
       FROM recording_tracks t JOIN enrolments m ON m.id = t.member_id WHERE t.part_id = ?`,
    [part],
  );

/** Of which moment, and of which cut, a picture is that stands for a recording: of another it has another address. */
export const ofStill = ({ cut, stillMs }: Pick<RecordingRow, 'cut' | 'stillMs'>): string =>
  `of=${cut?.number ?? 0}-${stillMs ?? ''}`;

/** A recording for a list, as this person may have it. */
export function infoOf(row: RecordingRow, teaches: boolean): Omit<RecordingInfo, 'still'> {
  const { id, sessionId, title, startsAt, state, progress, plan } = row;
  return {
    id,
    sessionId,
    title,
    startsAt,
    state,
    progress,
    lengthMs: row.lengthMs,
    bytes: row.bytes,
    keepUntil: plan?.keepUntil ?? null,
    mayDownload: teaches || (plan?.studentsDownload ?? false),
    goneAt: row.takenAt && state !== 'expired' ? Number(row.takenAt) + AWAY_MS : null,
  };
}

/** It can be watched: what it has been so far gives way. */
export async function noteReady(
  db: Db,
  {
    lengthMs,
    bytes,
    pictures,
    file,
    recording,
  }: {
    lengthMs: number;
    bytes: number;
    pictures: readonly PictureFile[];
    file: string;
    recording: string;
  },
) {
  await run(
    db,
    "UPDATE recordings SET state = 'ready', progress = 1, length_ms = ?, bytes = ?, file = ?, finished_at = NULL, tables_at = NULL, silences = NULL, fault = NULL WHERE id = ?",
    [lengthMs, bytes, file, recording],
  );
  await layPictures(db, recording, pictures);
}

/** What is seen of a recording, in place of what was. */
async function layPictures(db: Db, recording: string, pictures: readonly PictureFile[]) {
  await run(db, 'DELETE FROM recording_pictures WHERE recording_id = ?', [recording]);
  for (const [i, p] of pictures.entries()) await addPicture(db, recording, i, p);
}

/**
 * A student's is laid only while something of theirs belongs in the recording, and that is held until it is laid: who is
 * forgotten meanwhile waits for it.
 */
export async function addPicture(
  db: Db,
  recording: string,
  number: number,
  { kind, at, length, file, member }: PictureFile,
): Promise<void> {
  const theirs =
    member &&
    (await one(
      db,
      `SELECT t.member_id FROM recording_tracks t JOIN recording_parts p ON p.id = t.part_id
        WHERE p.recording_id = ? AND t.member_id = ? LIMIT 1 LOCK IN SHARE MODE`,
      [recording, member],
    ));
  if (member && !theirs) return;
  await run(
    db,
    'INSERT INTO recording_pictures (recording_id, number, kind, at_ms, length_ms, file, member_id) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [recording, number, kind, at, length, file, member],
  );
}

/** What is seen in a recording, each in its file; times in ms of it. */
export const picturesIn = async (
  db: Db,
  { id, cut }: Pick<RecordingRow, 'id' | 'cut'>,
): Promise<PictureFile[]> =>
  cut?.pictures ??
  (
    await rows<PictureFile>(
      db,
      'SELECT kind, at_ms AS `at`, length_ms AS length, file, member_id AS member FROM recording_pictures WHERE recording_id = ? ORDER BY number',
      [id],
    )
  ).map((p) => ({ ...p, at: Number(p.at), length: Number(p.length) }));

export const queueFinishing = (db: Db, recording: string, now: number) =>
  run(
    db,
    `INSERT INTO jobs (kind, job_key, payload, due_at) VALUES ('finish', ?, ?, ?)
       ON DUPLICATE KEY UPDATE state = 'queued', attempts = 0, due_at = VALUES(due_at)`,
    [`finish/${recording}`, JSON.stringify({ recording }), now],
  );

export async function noteFinished(
  db: Db,
  {
    recording,
    file,
    bytes,
    pictures,
    silences,
    now,
  }: {
    recording: string;
    file: string;
    bytes: number;
    pictures: readonly PictureFile[];
    silences: readonly Stretch[];
    now: number;
  },
) {
  await run(db, 'UPDATE recordings SET file = ?, bytes = ?, silences = ?, finished_at = ? WHERE id = ?', [
    file,
    bytes,
    JSON.stringify(silences),
    now,
    recording,
  ]);
  await layPictures(db, recording, pictures);
}

export const noteFailed = (db: Db, fault: string, recording: string) =>
  run(db, "UPDATE recordings SET state = 'failed', fault = ? WHERE id = ?", [fault, recording]);

export const noteProgress = (db: Db, progress: number, recording: string) =>
  run(db, "UPDATE recordings SET state = 'preparing', progress = ? WHERE id = ?", [progress, recording]);

/** Chapters as somebody wrote them, or as they come by themselves; it is searched by them once more. */
export const keepChapters = (db: Db, id: string, chapters: readonly Chapter[] | null) =>
  run(db, 'UPDATE recordings SET chapters = ?, words_at = NULL WHERE id = ?', [
    chapters && JSON.stringify(chapters),
    id,
  ]);

export const chooseStill = (db: Db, id: string, at: number | null) =>
  run(db, 'UPDATE recordings SET still_ms = ? WHERE id = ?', [at, id]);

export const nameRecording = (db: Db, id: string, title: string | null) =>
  run(db, 'UPDATE recordings SET title = ? WHERE id = ?', [title, id]);

/** Takes a recording away, or back; gives whether there is one to take. Taken away twice it goes when it was to go at first. */
export const takeAway = async (db: Db, id: string, at: number | null): Promise<boolean> => {
  const kept = await one(
    db,
    "SELECT id FROM recordings WHERE id = ? AND state IN ('ready', 'failed') FOR UPDATE",
    [id],
  );
  if (kept)
    await run(
      db,
      `UPDATE recordings SET taken_at = ${at === null ? '?' : 'COALESCE(taken_at, ?)'} WHERE id = ?`,
      [at, id],
    );
  return kept !== null;
};
