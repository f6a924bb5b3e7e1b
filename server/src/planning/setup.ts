import type { NamedClash } from '@nimble-bell/core/api';
import { periodsFor, sessionsOf, termDays, type LaidSession } from '@nimble-bell/core/calendar';
import { check, type Finding, type Setup } from '@nimble-bell/core/readiness';
import type { Context } from '../context';
import { seriesOf, type CourseRow, type SeriesRow, type SessionRow } from '../courses/store';
import { spaceFor } from '../recordings/space/short';
import { bellTimesOf } from '../terms/store';
import { rulesForChecks } from '../rules/checks';
import { clashesIn } from './clashes';
import { peopleForChecks } from './store';

export interface Checked {
  findings: Finding[];
  clashes: NamedClash[];
  zones: { zone: string; people: number }[];
}

/** Reads a course's whole set-up and lets the rules speak. */
export async function checkCourse(
  ctx: Context,
  course: CourseRow,
  sessions: readonly SessionRow[],
  series?: readonly SeriesRow[],
): Promise<Checked> {
  const now = ctx.now();
  const [all, bells, people, clashes, space, rules] = await Promise.all([
    series ?? seriesOf(ctx.db, course.id),
    bellTimesOf(ctx.db),
    peopleForChecks(ctx.db, course.id),
    clashesIn(ctx.db, course.id, now),
    spaceFor(ctx, course, sessions, now).catch(() => null),
    rulesForChecks(ctx, course, sessions),
  ]);
  const days = termDays(course.term);
  const setup: Setup = {
    term: course.term,
    now,
    people,
    youngPupils: course.youngPupils,
    door: course.door,
    limits: course.limits,
    rules,
    recording: course.recordingPlan,
    storage: space && { free: space.free, forecast: space.forecast.bytes },
    clashes: clashes.map((c) => ({
      series: c.seriesId,
      session: c.sessionId,
      startsAt: c.startsAt,
      minutes: c.minutes,
      other: `${c.other.course} ${c.other.title}${c.oneLink ? ', behind the same link,' : ''}`,
      people: c.people,
    })),
    series: all.map((s) => {
      const periods = s.pattern ? periodsFor(s.pattern, bells) : [];
      return {
        ...s,
        periods,
        published: s.publishedAt !== null,
        planned: s.pattern
          ? sessionsOf(course.term, s.pattern, days, periods)
          : { sessions: [], skipped: [], minutes: 0, missing: 0, missingMinutes: 0 },
        sessions: sessions.filter((x) => x.seriesId === s.id) as readonly LaidSession[],
      };
    }),
  };
  const zones = new Map<string, number>();
  for (const p of people) if (p.role === 'student') zones.set(p.zone, (zones.get(p.zone) ?? 0) + 1);
  return {
    findings: check(setup),
    clashes: clashes.map(({ seriesId, ...clash }) => clash),
    zones: [...zones].map(([zone, count]) => ({ zone, people: count })),
  };
}
