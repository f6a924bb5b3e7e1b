import type { CollegeRules, RulesDetail, RulesPlace } from '@nimble-bell/core/api';
import { deviations, type RuleSheet } from '@nimble-bell/core/limits';
import { noSettings, type Settings } from '@nimble-bell/core/settings';
import { membersWhere, type MemberRow } from '../accounts/store';
import type { Context } from '../context';
import { latestOf } from '../history/store';
import { rulesWayBack, sheetsFor, sheetsUsed } from './rules';
import { collegePlace, COLLEGE, everyPlaceOf, exceptionsOf, namesOf } from './store';

function placeOf(settings: Settings, sheets: readonly RuleSheet[]): RulesPlace {
  const sheet = settings.sheet.applied?.value ?? null;
  const known = sheets.find((s) => s.id === sheet);
  return {
    sheet: known ? sheet : null,
    differ: known ? deviations(settings, known) : [],
    limits: settings.limits,
    writing: settings.writing,
    door: settings.door,
    recording: settings.recording,
    segments: settings.runSheet.segments?.value ?? null,
  };
}

/** All that is set of what students may do in a course, for those who teach it. */
export async function rulesDetail(ctx: Context, { courseId, personId }: MemberRow): Promise<RulesDetail> {
  const places = await everyPlaceOf(ctx.db, courseId);
  const exceptions = await exceptionsOf(ctx.db, courseId, ctx.now());
  const always = await membersWhere(ctx.db, 'm.course_id = ? AND m.always_in', [courseId]);
  const sheets = await sheetsFor(ctx.db, personId, sheetsUsed(places));
  const setters = places.flatMap(({ settings: { limits, door } }) =>
    [...Object.values(limits), ...Object.values(door)].map((v) => v?.by ?? null),
  );
  const people = [...setters, ...exceptions.flatMap((e) => [e.member, e.by])];
  const names = await namesOf(ctx.db, [...new Set(people.filter((id) => id !== null))]);
  const { entry } = (await rulesWayBack(ctx.db, courseId)).way;
  const of = (layer: 'series' | 'session') =>
    places.filter((p) => p.layer === layer).map(({ id, settings }) => ({ id, ...placeOf(settings, sheets) }));
  return {
    sheets,
    college: placeOf((await collegePlace(ctx.db)).settings, sheets),
    course: placeOf(places.find((p) => p.layer === 'course')?.settings ?? noSettings(), sheets),
    series: of('series'),
    sessions: of('session'),
    exceptions: exceptions.map(({ member, by, ...e }) => ({
      ...e,
      member,
      name: names[member] ?? 'Somebody',
      by: (by && names[by]) || 'somebody',
    })),
    always: always.map(({ id, name }) => ({ member: id, name })),
    names,
    latest: entry && { id: entry.id, at: entry.at, words: entry.words },
    on: await latestOf(ctx.db, 'rule_changes', courseId),
  };
}

/** What the college says of limits and door. */
export async function collegeRules(ctx: Context): Promise<CollegeRules> {
  const { limits, writing, door } = (await collegePlace(ctx.db)).settings;
  const { entry } = (await rulesWayBack(ctx.db, COLLEGE)).way;
  const latest = entry && { id: entry.id, at: entry.at, words: entry.words };
  return { limits, writing, door, latest, on: await latestOf(ctx.db, 'rule_changes', COLLEGE) };
}
