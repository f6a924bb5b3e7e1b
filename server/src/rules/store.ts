import type { RuleSheet, SomeLimits } from '@nimble-bell/core/limits';
import type { PersonalLimit } from '@nimble-bell/core/room';
import type { Settings } from '@nimble-bell/core/settings';
import type { SomeWriting } from '@nimble-bell/core/writing';
import { json, one, rows, run, type Db } from '../db/pool';
import { readSettings } from '../sessions/store';

export const TABLES = { course: 'courses', series: 'series', session: 'sessions' } as const;
export type PlaceLayer = keyof typeof TABLES | 'college';

/** The college as a place: of its one row, and in the history of rules. */
export const COLLEGE = 'college';

/** Where settings stand: a row of a course, of a series, of a session; and what they are. */
export interface SettingsAt {
  layer: PlaceLayer;
  id: string;
  settings: Settings;
}

const read = (layer: PlaceLayer, found: { id: string; settings: unknown }[]): SettingsAt[] =>
  found.map(({ id, settings }) => ({ layer, id, settings: readSettings(settings) }));

/**
 * The settings of the college, of a course, of some of its series, or of those of its sessions that are still to come or on;
 * where it is asked for, of those that are over too.
 */
export async function placesOf(
  db: Db,
  course: string,
  layer: PlaceLayer,
  ids: readonly string[],
  heldToo = false,
): Promise<SettingsAt[]> {
  if (layer === 'college') {
    const found = await rows<{ settings: unknown }>(db, 'SELECT settings FROM college FOR UPDATE');
    return read(
      layer,
      found.map((one) => ({ id: COLLEGE, ...one })),
    );
  }
  const of = {
    course: 'id = ?',
    series: 'course_id = ? AND id IN (?)',
    session: `course_id = ? AND id IN (?)${heldToo ? '' : " AND state <> 'held'"}`,
  }[layer];
  const values = layer === 'course' ? [course] : [course, [...ids]];
  return read(
    layer,
    await rows(db, `SELECT id, settings FROM ${TABLES[layer]} WHERE ${of} ORDER BY id FOR UPDATE`, values),
  );
}

/** The college as it is, without a turn of it. */
export const collegePlace = async (db: Db): Promise<SettingsAt> =>
  read(COLLEGE, [
    { id: COLLEGE, ...(await one<{ settings: unknown }>(db, 'SELECT settings FROM college'))! },
  ])[0]!;

/** Every place of a course that says something of its own; of the college itself the one. */
export async function everyPlaceOf(db: Db, course: string): Promise<SettingsAt[]> {
  if (course === COLLEGE) return [await collegePlace(db)];
  const [own, series, sessions] = await Promise.all([
    rows<{ id: string; settings: unknown }>(db, 'SELECT id, settings FROM courses WHERE id = ?', [course]),
    rows<{ id: string; settings: unknown }>(
      db,
      "SELECT id, settings FROM series WHERE course_id = ? AND settings <> '{}'",
      [course],
    ),
    rows<{ id: string; settings: unknown }>(
      db,
      "SELECT id, settings FROM sessions WHERE course_id = ? AND settings <> '{}'",
      [course],
    ),
  ]);
  return [...read('course', own), ...read('series', series), ...read('session', sessions)];
}

export const writePlace = (db: Db, { layer, id, settings }: SettingsAt) =>
  layer === 'college'
    ? run(db, 'UPDATE college SET settings = ?', [JSON.stringify(settings)])
    : run(db, `UPDATE ${TABLES[layer]} SET settings = ? WHERE id = ?`, [JSON.stringify(settings), id]);

/** Courses in which a sheet is used, in the order in which several are locked. */
export const coursesUsing = async (db: Db, sheet: string): Promise<string[]> => {
  const said = `%"${sheet}"%`;
  const found = await rows<{ id: string }>(
    db,
    `SELECT id FROM courses WHERE settings LIKE ?
      UNION SELECT course_id FROM series WHERE settings LIKE ?
      UNION SELECT course_id FROM sessions WHERE settings LIKE ? AND state <> 'held' ORDER BY id`,
    [said, said, said],
  );
  return found.map((c) => c.id);
};

/** What a course, a series or a session is called. */
export const titlesOf = (db: Db, course: string) =>
  rows<{ id: string; title: string; startsAt: number | null }>(
    db,
    `SELECT id, CONCAT(code, ' ', title) AS title, NULL AS startsAt FROM courses WHERE id = ?
      UNION ALL SELECT id, title, NULL FROM series WHERE course_id = ?
      UNION ALL SELECT s.id, r.title, s.starts_at FROM sessions s JOIN series r ON r.id = s.series_id WHERE s.course_id = ?`,
    [course, course, course],
  );

interface RawSheet {
  id: string;
  name: string;
  about: string;
  limits: unknown;
  writing: unknown;
}
const readSheet = ({ limits, writing, ...sheet }: RawSheet): RuleSheet => ({
  ...sheet,
  limits: json<SomeLimits>(limits),
  writing: json<SomeWriting>(writing),
  own: true,
});

export const sheetsOf = async (db: Db, person: string): Promise<RuleSheet[]> =>
  (
    await rows<RawSheet>(
      db,
      'SELECT id, name, about, limits, writing FROM rule_sheets WHERE person_id = ? ORDER BY name',
      [person],
    )
  ).map(readSheet);

/** Sheets by id, whoever's they are: what a course uses is shown to all who teach it. */
export const sheetsByIds = async (db: Db, ids: readonly string[]): Promise<RuleSheet[]> =>
  ids.length
    ? (
        await rows<RawSheet>(db, 'SELECT id, name, about, limits, writing FROM rule_sheets WHERE id IN (?)', [
          [...ids],
        ])
      ).map(readSheet)
    : [];

/** Holds sheets as they are until the transaction ends: who edits or deletes one waits, or was before. */
export const shareSheets = (db: Db, ids: readonly string[]) =>
  ids.length
    ? rows(db, 'SELECT id FROM rule_sheets WHERE id IN (?) LOCK IN SHARE MODE', [[...ids]])
    : Promise.resolve([]);

export const sheetForUpdate = async (db: Db, id: string, person: string): Promise<RuleSheet | null> => {
  const found = await one<RawSheet>(
    db,
    'SELECT id, name, about, limits, writing FROM rule_sheets WHERE id = ? AND person_id = ? FOR UPDATE',
    [id, person],
  );
  return found && readSheet(found);
};

export const insertSheet = (
  db: Db,
  { id, name, about, limits, writing = {} }: Omit<RuleSheet, 'own'>,
  person: string,
  at: number,
) =>
  run(
    db,
    'INSERT INTO rule_sheets (id, person_id, name, about, limits, writing, at) VALUES (?, ?, ?, ?, ?, ?, ?)',
    [id, person, name, about, JSON.stringify(limits), JSON.stringify(writing), at],
  );

export const writeSheet = (
  db: Db,
  { id, name, about, limits, writing = {} }: Omit<RuleSheet, 'own'>,
  at: number,
) =>
  run(db, 'UPDATE rule_sheets SET name = ?, about = ?, limits = ?, writing = ?, at = ? WHERE id = ?', [
    ...[name, about, JSON.stringify(limits), JSON.stringify(writing), at, id],
  ]);

export const deleteSheet = (db: Db, id: string) => run(db, 'DELETE FROM rule_sheets WHERE id = ?', [id]);

export interface ExceptionRow extends PersonalLimit {
  id: string;
  reason: string;
  at: number;
}

/** The exceptions of a course that hold, or will until their time is over. */
export const exceptionsOf = (db: Db, course: string, now: number) =>
  rows<ExceptionRow>(
    db,
    `SELECT id, member_id AS member, capability, state, until, reason, made_by AS \`by\`, at FROM exceptions
      WHERE course_id = ? AND ended_at IS NULL AND (until IS NULL OR until > ?) ORDER BY at, id`,
    [course, now],
  );

/** One takes the place of an earlier one of the same person and capability. */
export async function insertException(db: Db, course: string, one: ExceptionRow) {
  await run(
    db,
    'UPDATE exceptions SET ended_at = ? WHERE member_id = ? AND capability = ? AND ended_at IS NULL',
    [one.at, one.member, one.capability],
  );
  await run(
    db,
    `INSERT INTO exceptions (id, course_id, member_id, capability, state, until, reason, made_by, at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [one.id, course, one.member, one.capability, one.state, one.until, one.reason, one.by, one.at],
  );
}

export const endException = async (db: Db, course: string, id: string, now: number) =>
  (
    await run(db, 'UPDATE exceptions SET ended_at = ? WHERE id = ? AND course_id = ? AND ended_at IS NULL', [
      now,
      id,
      course,
    ])
  ).affectedRows > 0;

export const memberRole = (db: Db, course: string, member: string) =>
  one<{ role: string; name: string }>(
    db,
    'SELECT role, called AS name FROM members WHERE id = ? AND course_id = ?',
    [member, course],
  );

/** Somebody's memberships, by course. */
export const membersOfPerson = async (db: Db, person: string): Promise<Map<string, string>> =>
  new Map(
    (
      await rows<{ course: string; id: string }>(
        db,
        'SELECT course_id AS course, id FROM members WHERE person_id = ?',
        [person],
      )
    ).map((m) => [m.course, m.id]),
  );

/** Members by id, as they are called now. */
export const namesOf = async (db: Db, ids: readonly string[]): Promise<Record<string, string>> =>
  ids.length
    ? Object.fromEntries(
        (
          await rows<{ id: string; name: string }>(
            db,
            'SELECT id, called AS name FROM members WHERE id IN (?)',
            [[...ids]],
          )
        ).map((m) => [m.id, m.name]),
      )
    : {};
