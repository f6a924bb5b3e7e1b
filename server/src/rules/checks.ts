import { instantWords } from '@nimble-bell/core/calendar';
import { resolveAll } from '@nimble-bell/core/limits';
import type { Setup, SetupPlace } from '@nimble-bell/core/readiness';
import type { Layer } from '@nimble-bell/core/settings';
import type { Context } from '../context';
import type { CourseRow, SessionRow } from '../courses/store';
import { sheetsFor, sheetsUsed } from './rules';
import { collegePlace, everyPlaceOf, exceptionsOf, namesOf, type SettingsAt } from './store';

type OfCourse = SettingsAt & { layer: SetupPlace['layer'] };

/** The places of a course that say something, and its exceptions, as the readiness check reads them. */
export async function rulesForChecks(
  ctx: Context,
  course: CourseRow,
  sessions: readonly SessionRow[],
): Promise<NonNullable<Setup['rules']>> {
  const [college, places, exceptions] = await Promise.all([
    collegePlace(ctx.db),
    everyPlaceOf(ctx.db, course.id),
    exceptionsOf(ctx.db, course.id, ctx.now()),
  ]);
  const ahead = sessions.filter((s) => s.endsAt > ctx.now() && s.state !== 'cancelled');
  const saying = places.filter(
    (p): p is OfCourse =>
      p.layer !== 'college' && (p.layer !== 'session' || ahead.some((s) => s.id === p.id)),
  );
  const used = sheetsUsed(saying);
  const sheets = used.length ? await sheetsFor(ctx.db, '', used) : [];
  const names = await namesOf(
    ctx.db,
    exceptions.map((e) => e.member),
  );
  const layerOf = (id: string | undefined): Layer[] =>
    places.filter((p) => p.id === id).map(({ layer, settings }) => ({ name: layer, settings }));
  const place = ({ layer, id, settings }: OfCourse): SetupPlace => {
    const those = ahead.filter((s) => layer === 'course' || s.seriesId === id || s.id === id);
    const [first] = those;
    const series = layer === 'session' ? layerOf(first?.seriesId) : [];
    const wider: Layer[] = [{ name: 'college', settings: college.settings }];
    if (layer !== 'course') wider.push(...layerOf(course.id), ...series);
    const layers = [...wider, { name: layer, settings }];
    return {
      ...{ layer, id, said: settings.limits },
      title:
        layer === 'course'
          ? 'the course'
          : layer === 'series'
            ? (first?.seriesTitle ?? 'a series')
            : `${first!.seriesTitle}, ${instantWords(first!.startsAt, course.term.zone)}`,
      minutes: those.length ? Math.min(...those.map((s) => s.minutes)) : null,
      limits: resolveAll(layers),
      sheet: sheets.find((s) => s.id === settings.sheet.applied?.value) ?? null,
      segments: settings.runSheet.segments?.value ?? null,
    };
  };
  return {
    places: saying.map(place),
    exceptions: exceptions.map(({ id, member, capability, state, until }) => ({
      ...{ id, capability, state, until },
      name: names[member] ?? 'Somebody',
    })),
  };
}
