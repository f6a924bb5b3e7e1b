import { faultsOf, jsonPath } from '../api/faults';
import type { MeetingPattern } from '../calendar/plan';
import { calendarOf } from '../calendar/ics';
import { periodFaults } from '../calendar/bellTimes';
import { toClock, toLocalDate } from '../calendar/localDate';
import { sessionsOf, type PlannedSeries } from '../calendar/sessions';
import { termDays } from '../calendar/term';
import { toWall, type Instant } from '../calendar/zone';
import { clashesOf, type Clash } from '../clashes/clashes';
import { check, type Setup, type SetupClash } from '../readiness/index';
import { writeCsv } from '../roster/table';
import { PlanFile } from './schema';

export { PlanFile } from './schema';

/** A plan that was read, or its faults, each a JSON path and a sentence. */
export type ReadPlan = { plan: PlanFile } | { faults: string[] };

export function readPlanFile(text: string): ReadPlan {
  let value: unknown;
  try {
    value = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    const why = error instanceof Error ? ` (${error.message})` : '';
    return { faults: [`$: This is not JSON${why}.`] };
  }
  const result = PlanFile.safeParse(value);
  if (!result.success)
    return { faults: faultsOf(result.error).map((f) => `${jsonPath(f.path)}: ${f.message}`) };
  const plan = result.data;
  const faults = plan.series.flatMap((s, i) =>
    periodFaults(s.pattern as MeetingPattern, periodsOf(plan)).map(
      (f) => `${jsonPath(['series', i, 'pattern', 'days', f.day, 'periods'])}: ${f.message}`,
    ),
  );
  return faults.length ? { faults } : { plan };
}

const periodsOf = (plan: PlanFile) => plan.bellTimes?.periods ?? [];

export interface PrintedSession {
  series: string;
  number: number;
  /** Local date and times; a time that a clock change skips is the one it moved to. */
  date: string;
  start: string;
  end: string;
  zone: string;
  /** UTC, RFC 3339. */
  startsAt: string;
  endsAt: string;
  week: number | null;
}

export interface PrintedPlan {
  sessions: PrintedSession[];
  skipped: { series: string; date: string; reason: string }[];
  findings: { rule: string; level: string; series: string | null; text: string }[];
  clashes?: {
    a: { series: string; startsAt: string };
    b: { series: string; startsAt: string };
    minutes: number;
    people: string[];
  }[];
}

const utc = (instant: Instant) => new Date(instant).toISOString().replace('.000Z', 'Z');
const byText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** A plan's sessions, its skipped dates, what the readiness rules say of it, and where asked its clashes. */
export function planOut(plan: PlanFile, withClashes: boolean): PrintedPlan {
  const laid = layAll(plan);
  const clashes = clashesOf(
    laid.map(({ series, planned }) => ({
      id: series.id,
      people: everyone(series),
      sessions: planned.sessions,
    })),
  );
  const sessions = laid
    .flatMap(({ series, planned }) =>
      planned.sessions.map((s) => ({ at: s.startsAt, out: printed(plan, series.id, s) })),
    )
    .sort((a, b) => a.at - b.at || byText(a.out.series, b.out.series))
    .map(({ out }) => out);
  const skipped = laid
    .flatMap(({ series, planned }) => planned.skipped.map((s) => ({ series: series.id, ...s })))
    .sort((a, b) => byText(a.date, b.date) || byText(a.series, b.series));
  const findings = check(setupOf(plan, laid, clashes)).map((f) => ({
    rule: f.rule,
    level: f.level,
    series: f.series ?? null,
    text: f.text,
  }));
  const end = (side: Clash['a']) => ({ series: side.series, startsAt: utc(side.startsAt) });
  return {
    sessions,
    skipped,
    findings,
    ...(withClashes
      ? { clashes: clashes.map((c) => ({ a: end(c.a), b: end(c.b), minutes: c.minutes, people: c.people })) }
      : {}),
  };
}

type Series = PlanFile['series'][number];
interface Laid {
  series: Series;
  pattern: MeetingPattern;
  planned: PlannedSeries;
}

function layAll(plan: PlanFile): Laid[] {
  const days = termDays(plan.term);
  return plan.series.map((series) => {
    const pattern = series.pattern as MeetingPattern;
    return { series, pattern, planned: sessionsOf(plan.term, pattern, days, periodsOf(plan)) };
  });
}

const everyone = (series: Series): string[] => [
  ...new Set([...(series.teacher ? [series.teacher] : []), ...(series.people ?? [])]),
];

function printed(plan: PlanFile, series: string, s: PlannedSeries['sessions'][number]): PrintedSession {
  const { zone } = plan.term;
  const [start, end] = [toWall(zone, s.startsAt), toWall(zone, s.endsAt)];
  return {
    series,
    number: s.number,
    date: toLocalDate(start.day),
    start: toClock(start.minutes),
    end: toClock(end.minutes),
    zone,
    startsAt: utc(s.startsAt),
    endsAt: utc(s.endsAt),
    week: s.week,
  };
}

function setupOf(plan: PlanFile, laid: Laid[], clashes: Clash[]): Setup {
  const titles = new Map(plan.series.map((s) => [s.id, s.title]));
  const teachers = new Set(plan.series.map((s) => s.teacher));
  const named: SetupClash[] = clashes.map((c) => ({
    series: c.a.series,
    session: null,
    startsAt: c.b.startsAt,
    minutes: c.minutes,
    other: titles.get(c.b.series)!,
    people: c.people.map((name) => ({ name, teaches: teachers.has(name) })),
  }));
  return {
    term: plan.term,
    now: null,
    clashes: named,
    people: null,
    youngPupils: false,
    door: null,
    limits: null,
    storage: null,
    series: laid.map(({ series, pattern, planned }) => ({
      id: series.id,
      title: series.title,
      kind: 'class',
      pattern,
      periods: periodsOf(plan),
      expected: null,
      group: null,
      leads: [],
      published: false,
      planned,
      sessions: planned.sessions.map((s) => ({
        ...s,
        id: `${series.id}/${s.date}`,
        lingerMinutes: pattern.lingerMinutes,
        state: 'planned',
        title: null,
        own: [],
        replaces: null,
        record: null,
      })),
    })),
  };
}

/** The sessions as CSV, a column a field. */
export function planCsv(plan: PlanFile): string {
  const { sessions } = planOut(plan, false);
  const keys = ['series', 'number', 'date', 'start', 'end', 'zone', 'startsAt', 'endsAt', 'week'] as const;
  return writeCsv(
    keys,
    sessions.map((s) => keys.map((k) => s[k])),
  );
}

/** The sessions as an iCalendar text, one VEVENT a series. */
export function planIcs(plan: PlanFile, stamp: Instant): string {
  const entries = layAll(plan).map(({ series, pattern, planned }) => ({
    uid: `${series.id}@nimble-bell`,
    sequence: 0,
    stamp,
    title: series.title,
    term: plan.term,
    pattern,
    periods: periodsOf(plan),
    sessions: planned.sessions.map((s) => ({ ...s, state: 'planned' })),
  }));
  return calendarOf(entries, null, plan.term.name);
}
