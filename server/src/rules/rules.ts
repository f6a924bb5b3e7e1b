import type { RulesInput } from '@nimble-bell/core/api';
import { doorRuleWords, type DoorRules } from '@nimble-bell/core/door';
import { countWords, instantWords, listWords } from '@nimble-bell/core/calendar';
import {
  limitWords,
  rowOf,
  SHIPPED_SHEETS,
  underSheet,
  withoutSheet,
  type Capability,
  type RuleSheet,
} from '@nimble-bell/core/limits';
import { noSettings, takenBack, withValues, type Segment, type Settings } from '@nimble-bell/core/settings';
import { newId } from '../context';
import { recordingRuleWords, type RecordingPlan } from '@nimble-bell/core/recording';
import { writingWords, type WritingTime } from '@nimble-bell/core/writing';
import type { Db } from '../db/pool';
import { AppError } from '../errors';
import { takeBack, wayBack } from '../history/undo';
import { judgeAnew } from '../sessions/roll';
import { keepEntry } from '../history/store';
import {
  everyPlaceOf,
  placesOf,
  shareSheets,
  sheetsByIds,
  sheetsOf,
  titlesOf,
  writePlace,
  type PlaceLayer,
  type SettingsAt,
} from './store';

/** What was changed at one place. */
export interface RulesRow {
  layer: PlaceLayer;
  id: string;
  before: Settings;
  after: Settings;
}

/** The sheets that somebody may apply: the college's and their own; and those of `ids`, whoever's they are. */
export async function sheetsFor(db: Db, person: string, ids: readonly string[] = []): Promise<RuleSheet[]> {
  const own = await sheetsOf(db, person);
  const others = await sheetsByIds(
    db,
    ids.filter((id) => !own.some((s) => s.id === id) && !SHIPPED_SHEETS.some((s) => s.id === id)),
  );
  return [...SHIPPED_SHEETS, ...own, ...others.map((s) => ({ ...s, own: false }))];
}

/** The sheets that places go by, as a whole or in a part of their run sheet. */
export const sheetsUsed = (places: readonly SettingsAt[]): string[] => [
  ...new Set(
    places.flatMap(({ settings: { sheet, runSheet } }) => [
      ...(sheet.applied ? [sheet.applied.value] : []),
      ...(runSheet.segments?.value ?? []).flatMap((s) => s.sheet ?? []),
    ]),
  ),
];

export const sheetOf = (sheets: readonly RuleSheet[], id: string): RuleSheet => {
  const found = sheets.find((s) => s.id === id);
  if (!found) throw new AppError('not-found', 'There is no such rule sheet.');
  return found;
};

/** Whose rules are set: a course's, in the college's zone for its words; or the college's own. */
export interface Ruled {
  id: string;
  term: { zone: string };
}

/** Who sets them: a member of the course; somebody of the college, who is no member. */
export interface Setter {
  id: string | null;
  personId: string;
  name: string;
}

type Input = Omit<RulesInput, 'at'> & { at: RulesInput['at'] | { layer: 'college' } };

interface Setting {
  input: Input;
  sheets: readonly RuleSheet[];
  by: string | null;
  at: number;
}

/** One place's settings with what was asked set. */
function settled(settings: Settings, { input, sheets, by, at }: Setting): Settings {
  let next = settings;
  const before = settings.sheet.applied?.value;
  if (input.sheet) next = underSheet(next, sheetOf(sheets, input.sheet), by, at);
  else if (input.sheet === null && before)
    next = withoutSheet(next, sheets.find((s) => s.id === before) ?? { limits: {} });
  if (input.limits) {
    const limits = Object.fromEntries(
      Object.entries(input.limits).map(([c, state]) => [c, state ?? undefined]),
    );
    next = withValues(next, 'limits', limits, by, at);
  }
  if (input.door) {
    const door = Object.fromEntries(Object.entries(input.door).map(([key, v]) => [key, v ?? undefined]));
    next = withValues(next, 'door', door, by, at);
  }
  if (input.writing) {
    const times = Object.fromEntries(Object.entries(input.writing).map(([key, v]) => [key, v ?? undefined]));
    next = withValues(next, 'writing', times, by, at);
  }
  if (input.recording) {
    const said = Object.fromEntries(Object.entries(input.recording).map(([key, v]) => [key, v ?? undefined]));
    next = withValues(next, 'recording', said, by, at);
  }
  if (input.roll) next = withValues(next, 'roll', input.roll, by, at);
  if (input.after) next = withValues(next, 'after', input.after, by, at);
  if (input.segments !== undefined) {
    const segments = input.segments?.map((s): Segment => ({
      ...s,
      limits: s.sheet ? sheetOf(sheets, s.sheet).limits : {},
    }));
    next = withValues(next, 'runSheet', { segments }, by, at);
  }
  return next;
}

const LAYER_OF: Record<PlaceLayer, string> = {
  college: 'the college',
  course: 'the course',
  series: 'series',
  session: 'session',
};

function whatWords(
  { sheet, limits, segments, door, writing, roll, after, recording }: Input,
  sheets: readonly RuleSheet[],
): string[] {
  const said: string[] = [];
  if (sheet) said.push(`rule sheet ${sheetOf(sheets, sheet).name}`);
  if (sheet === null) said.push('no rule sheet');
  for (const [c, state] of Object.entries(limits ?? {}))
    said.push(
      state
        ? limitWords(c as Capability, state)
        : `${rowOf(c as Capability).label.toLowerCase()} as the wider place`,
    );
  for (const [key, value] of Object.entries(door ?? {}) as [keyof DoorRules, never][])
    said.push(value === null ? 'the door as the wider place' : doorRuleWords(key, value));
  for (const [key, value] of Object.entries(writing ?? {}) as [WritingTime, never][])
    said.push(value === null ? 'writing as the wider place' : writingWords(key, value));
  for (const [key, value] of Object.entries(recording ?? {}) as [
    keyof RecordingPlan,
    string | boolean | null,
  ][])
    said.push(value === null ? 'recordings as the wider place' : recordingRuleWords(key, value));
  if (roll) said.push('what the roll counts');
  if (after) said.push('what is counted and asked after class');
  if (segments) said.push(`a run sheet of ${countWords(segments.length, 'segment')}`);
  if (segments === null) said.push('no run sheet of its own');
  return said;
}

/** The places as one says them: "Lecture", "3 sessions", "Lecture, Tue 6 Oct, 19:00". */
async function placesWords(db: Db, course: Ruled, changed: readonly RulesRow[]): Promise<string> {
  const [first] = changed;
  if (first?.layer === 'college') return 'The college';
  if (!first || first.layer === 'course') return 'The course';
  if (changed.length > 1)
    return countWords(
      changed.length,
      LAYER_OF[first.layer],
      first.layer === 'series' ? 'series' : 'sessions',
    );
  const place = (await titlesOf(db, course.id)).find((t) => t.id === first.id);
  if (!place) return LAYER_OF[first.layer];
  return place.startsAt === null
    ? place.title
    : `${place.title}, ${instantWords(place.startsAt, course.term.zone)}`;
}

const same = (a: Settings, b: Settings) => JSON.stringify(a) === JSON.stringify(b);

/** Writes what changed, and keeps it in the course's history. */
export async function keepRules(
  db: Db,
  courseId: string,
  changed: readonly RulesRow[],
  entry: { by: string; words: string; at: number; undoing?: boolean },
): Promise<string | null> {
  const rows = changed.filter((c) => !same(c.before, c.after));
  if (!rows.length) return null;
  for (const { layer, id, after } of rows) await writePlace(db, { layer, id, settings: after });
  if (rows.some(({ before, after }) => JSON.stringify(before.roll) !== JSON.stringify(after.roll)))
    await judgeAnew(db, courseId);
  const id = newId();
  await keepEntry(db, 'rule_changes', { id, courseId, undoing: false, ...entry, body: rows });
  return id;
}

/** Sets limits, a door, a sheet or a run sheet at some places of a course, whose turn is had, or of the college. Gives the entry; null where nothing changed. */
export async function setRules(db: Db, course: Ruled, setter: Setter, input: Input, at: number) {
  const { layer } = input.at;
  const ids = 'ids' in input.at ? input.at.ids : null;
  // Who may watch, and until when, is said of what is over as well.
  const heldToo = Object.keys(input).every((key) => key === 'at' || key === 'recording');
  const places = await placesOf(db, course.id, layer, ids ?? [], heldToo);
  if (places.length < (ids ? new Set(ids).size : 1))
    throw new AppError(
      'session-over',
      'Something of this is over, or is planned no more: it stays as it was.',
    );
  const asked = [input.sheet, ...(input.segments ?? []).map((s) => s.sheet)];
  await shareSheets(db, [...new Set(asked.filter((id) => typeof id === 'string'))]);
  const sheets = await sheetsFor(db, setter.personId, sheetsUsed(await everyPlaceOf(db, course.id)));
  const changed = places.map(({ id, settings }): RulesRow => ({
    ...{ layer, id },
    before: settings,
    after: settled(settings, { input, sheets, by: setter.id, at }),
  }));
  const words = `${await placesWords(db, course, changed)}: ${listWords(whatWords(input, sheets))}`;
  return keepRules(db, course.id, changed, { by: setter.name, words, at });
}

/** What can be taken back of a course's rules: the latest change of which something stands as it left it. */
export async function rulesWayBack(db: Db, courseId: string) {
  const now = new Map((await everyPlaceOf(db, courseId)).map((p) => [p.id, p.settings]));
  const back = (rows: readonly RulesRow[]) =>
    rows.map(({ layer, id, before, after }) => {
      const current = now.get(id) ?? noSettings();
      const { settings, left } = takenBack(current, read(before), read(after));
      return { row: { layer, id, before: current, after: settings }, left };
    });
  const isSpent = (rows: RulesRow[]) => back(rows).every(({ row }) => same(row.before, row.after));
  return { way: await wayBack<RulesRow[]>(db, 'rule_changes', courseId, isSpent), back };
}

/** An entry of before a section was there says nothing of it. */
const read = (settings: Settings): Settings => ({ ...noSettings(), ...settings });

/** Takes the latest change back, value by value; what was set otherwise since stays, and is said to. */
export async function undoRules(db: Db, course: Ruled, setter: Setter, change: string, at: number) {
  const { way, back } = await rulesWayBack(db, course.id);
  const entry = await takeBack(db, 'rule_changes', way, change, at);
  if (!entry) throw new AppError('not-latest');
  const all = back(entry.body);
  const stays = all.some(({ left }) => left > 0) ? '; what was set otherwise since stays' : '';
  const words = `Undone: ${entry.words}${stays}`;
  const changed = all.map(({ row }) => row);
  return keepRules(db, course.id, changed, { by: setter.name, words, at, undoing: true });
}
