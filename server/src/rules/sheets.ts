import type { SheetInput, SheetUse } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { followSheet, CAPABILITY_IDS, type RuleSheet, type SheetSays } from '@nimble-bell/core/limits';
import { withValues, type Settings } from '@nimble-bell/core/settings';
import type { PoolConnection } from 'mysql2/promise';
import { courseById } from '../courses/store';
import { takeTurn } from '../courses/turn';
import type { Db } from '../db/pool';
import { keepRules, type RulesRow } from './rules';
import { coursesUsing, everyPlaceOf, membersOfPerson, titlesOf, type SettingsAt } from './store';

const follows = ({ sheet }: Settings, id: string) => sheet.applied?.value === id;
const segmentsBy = ({ runSheet }: Settings, id: string) =>
  (runSheet.segments?.value ?? []).filter((s) => s.sheet === id).length;

const using = (places: readonly SettingsAt[], id: string) =>
  places.filter(({ settings }) => follows(settings, id) || segmentsBy(settings, id));

/** Where a sheet is used, so that one sees what an edit of it changes. */
export async function usesOf(db: Db, sheet: RuleSheet): Promise<SheetUse[]> {
  const uses: SheetUse[] = [];
  for (const course of await coursesUsing(db, sheet.id)) {
    const titles = new Map((await titlesOf(db, course)).map((t) => [t.id, t]));
    const name = titles.get(course)!.title;
    const { zone } = (await courseById(db, course))!.term;
    for (const { id, layer, settings } of using(await everyPlaceOf(db, course), sheet.id)) {
      const title = titles.get(id);
      const when = title?.startsAt ? `, ${instantWords(title.startsAt, zone)}` : '';
      const following = CAPABILITY_IDS.filter((c) => settings.limits[c]?.value === sheet.limits[c]).length;
      if (follows(settings, sheet.id))
        uses.push({
          course: name,
          what: layer === 'course' ? 'The course' : `${title?.title}${when}`,
          following,
        });
      const segments = segmentsBy(settings, sheet.id);
      if (segments)
        uses.push({
          course: name,
          what: `Run sheet of ${layer === 'course' ? 'the course' : `${title?.title}${when}`}`,
          following: segments,
        });
    }
  }
  return uses;
}

/** The settings of a place after a sheet was edited. */
function after(
  settings: Settings,
  id: string,
  before: SheetSays,
  says: SheetSays,
  by: string | null,
  at: number,
) {
  let next = settings;
  if (follows(settings, id)) next = followSheet(next, before, says, by, at);
  if (segmentsBy(settings, id)) {
    const segments = settings.runSheet.segments!.value.map((s) =>
      s.sheet === id ? { ...s, limits: says.limits } : s,
    );
    next = withValues(next, 'runSheet', { segments }, by, at);
  }
  return next;
}

/** Everywhere the sheet is used what followed it follows, in the same transaction: each course has it in its history. */
export async function spreadSheet(
  db: PoolConnection,
  sheet: RuleSheet,
  says: SheetInput,
  { person, by, at }: { person: string; by: string; at: number },
) {
  const members = await membersOfPerson(db, person);
  for (const course of await coursesUsing(db, sheet.id)) {
    await takeTurn(db, course);
    const who = members.get(course) ?? null;
    const changed = using(await everyPlaceOf(db, course), sheet.id).map(
      ({ layer, id, settings }): RulesRow => ({
        ...{ layer, id, before: settings },
        after: after(settings, sheet.id, sheet, says, who, at),
      }),
    );
    await keepRules(db, course, changed, { by, words: `The rule sheet ${says.name} was edited`, at });
  }
}
