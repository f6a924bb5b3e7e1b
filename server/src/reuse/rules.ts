import { z } from 'zod';
import { Settings, type Section } from '@nimble-bell/core/settings';
import { seriesOf } from '../courses/store';
import type { Db } from '../db/pool';
import { sheetsUsed } from '../rules/rules';
import { everyPlaceOf, placesOf, shareSheets, writePlace, type SettingsAt } from '../rules/store';

/** What goes over with a course: what is said of who comes in, of what students may do, and the run sheets. */
const CARRIED = [
  'sheet',
  'limits',
  'writing',
  'door',
  'roll',
  'runSheet',
] as const satisfies readonly Section[];

/** What a course and its series say, the series by title and group: ids belong to one course. */
export const KeptRules = z.object({
  course: Settings,
  series: z.array(z.object({ title: z.string(), group: z.string().nullable(), settings: Settings })),
});
export type KeptRules = z.infer<typeof KeptRules>;

export async function rulesOf(db: Db, courseId: string): Promise<KeptRules> {
  const places = await everyPlaceOf(db, courseId);
  const of = (layer: SettingsAt['layer'], id: string) =>
    Settings.parse(places.find((p) => p.layer === layer && p.id === id)?.settings ?? {});
  const series = await seriesOf(db, courseId);
  return {
    course: of('course', courseId),
    series: series.map(({ id, title, group }) => ({ title, group, settings: of('series', id) })),
  };
}

/** The same values, said by somebody else now. */
export function saidAnew(settings: Settings, by: string, at: number): Partial<Settings> {
  const anew = (section: Section) =>
    Object.fromEntries(Object.entries(settings[section]).map(([key, said]) => [key, { ...said, by, at }]));
  return Object.fromEntries(CARRIED.map((section) => [section, anew(section)]));
}

/**
 * Lets a course say what was kept, as the caller's member says it now. Only series that say nothing yet take it. What is
 * set for single sessions and single people stays where it was: another term has other dates and other people.
 */
export async function layRules(db: Db, courseId: string, kept: KeptRules, by: string, at: number) {
  const all = [kept.course, ...kept.series.map((s) => s.settings)];
  await shareSheets(db, sheetsUsed(all.map((settings) => ({ layer: 'course', id: '', settings }))));
  const write = async (layer: SettingsAt['layer'], id: string, settings: Settings) => {
    const [place] = await placesOf(db, courseId, layer, [id]);
    if (!place) return;
    const said = CARRIED.some((section) => Object.keys(place.settings[section]).length);
    if (layer === 'series' && said) return;
    await writePlace(db, { layer, id, settings: { ...place.settings, ...saidAnew(settings, by, at) } });
  };
  await write('course', courseId, kept.course);
  for (const { id, title, group } of await seriesOf(db, courseId)) {
    const own = kept.series.find((s) => s.title === title && s.group === group);
    if (own) await write('series', id, own.settings);
  }
}
