import {
  isStanding,
  SeriesInput,
  faultsOf,
  type MeetingPattern,
  type PatternKind,
  type SeriesDraft,
  type SeriesInfo,
  type SeriesKind,
  type Weekday,
} from '@nimble-bell/core/api';
import { WEEKDAYS } from '@nimble-bell/core/calendar';

export interface DayForm {
  day: Weekday;
  start: string;
  minutes: number | '';
  /** Names of periods, where the series goes by bell times. */
  periods: string[];
}

/** What the editor holds while it is typed: numbers may be empty. */
export interface SeriesForm {
  title: string;
  kind: SeriesKind;
  patternKind: PatternKind;
  days: DayForm[];
  /** The bell times its periods belong to; by the clock without. */
  bellTimes: string;
  every: number | '';
  weeks: 'teaching' | 'calendar';
  firstDate: string;
  /** The time of a pattern that is not weekly. */
  start: string;
  minutes: number | '';
  monthBy: 'date' | 'weekday';
  onDate: number | '';
  nth: string;
  nthDay: Weekday;
  dates: string[];
  /** Listed dates that keep a time of their own. */
  ownTimes: Record<string, { start?: string | undefined; minutes?: number | undefined }>;
  lingerMinutes: number | '';
  endsBy: 'term' | 'date' | 'count' | 'hours';
  endDate: string;
  count: number | '';
  hours: number | '';
  expected: number | '';
  group: string;
  leads: string[];
}

export const emptyForm = (): SeriesForm => ({
  title: 'Lecture',
  kind: 'class',
  patternKind: 'weekly',
  days: [],
  bellTimes: '',
  every: 1,
  weeks: 'teaching',
  firstDate: '',
  start: '18:30',
  minutes: 80,
  monthBy: 'weekday',
  onDate: 1,
  nth: '1',
  nthDay: 'friday',
  dates: [],
  ownTimes: {},
  lingerMinutes: 0,
  endsBy: 'term',
  endDate: '',
  count: '',
  hours: '',
  expected: '',
  group: '',
  leads: [],
});

export function formOf(series: SeriesInfo): SeriesForm {
  const { pattern } = series;
  const base: SeriesForm = {
    ...emptyForm(),
    title: series.title,
    kind: series.kind,
    expected: series.expected ?? '',
    group: series.group ?? '',
    leads: series.leads,
  };
  return pattern ? { ...base, ...patternForm(pattern) } : base;
}

function patternForm(p: MeetingPattern): Partial<SeriesForm> {
  const common: Partial<SeriesForm> = {
    patternKind: p.kind,
    every: p.every,
    weeks: p.weeks ?? 'teaching',
    firstDate: p.firstDate ?? '',
    lingerMinutes: p.lingerMinutes,
    endsBy: p.ends.by,
    ...(p.ends.by === 'date' ? { endDate: p.ends.date } : {}),
    ...(p.ends.by === 'count' ? { count: p.ends.count } : {}),
    ...(p.ends.by === 'hours' ? { hours: p.ends.hours } : {}),
  };
  if (p.kind === 'weekly')
    return {
      ...common,
      bellTimes: p.bellTimes ?? '',
      days: p.days.map((d) =>
        'periods' in d ? { day: d.day, start: '', minutes: '', periods: d.periods } : { ...d, periods: [] },
      ),
    };
  if (p.kind === 'dates') {
    const own = p.dates.filter((d) => typeof d !== 'string');
    return {
      ...common,
      start: p.start ?? own[0]?.start ?? '18:30',
      minutes: p.minutes ?? own[0]?.minutes ?? 80,
      dates: p.dates.map((d) => (typeof d === 'string' ? d : d.date)),
      ownTimes: Object.fromEntries(own.map(({ date, ...time }) => [date, time])),
    };
  }
  const time = { ...common, start: p.start, minutes: p.minutes };
  if (p.kind === 'daily') return time;
  return p.onWeekday
    ? { ...time, monthBy: 'weekday', nth: String(p.onWeekday.nth), nthDay: p.onWeekday.day }
    : { ...time, monthBy: 'date', onDate: p.onDate ?? 1 };
}

const number = (value: number | '') => (value === '' ? Number.NaN : value);

/** The form as the server takes it; what is missing is left for its schema to name. */
export function draftOf(form: SeriesForm): SeriesDraft {
  return {
    title: form.title,
    kind: form.kind,
    pattern: isStanding(form.kind) ? null : (patternOf(form) as SeriesDraft['pattern']),
    expected: form.expected === '' || isStanding(form.kind) ? null : form.expected,
    group: form.group || null,
    leads: form.leads,
  };
}

function patternOf(form: SeriesForm): object {
  const common = {
    kind: form.patternKind,
    ...(form.firstDate ? { firstDate: form.firstDate } : {}),
    every: number(form.every),
    lingerMinutes: number(form.lingerMinutes),
    ends: endsOf(form),
  };
  const time = { start: form.start, minutes: number(form.minutes) };
  switch (form.patternKind) {
    case 'weekly':
      return {
        ...common,
        ...(form.weeks === 'calendar' ? { weeks: form.weeks } : {}),
        ...(form.bellTimes ? { bellTimes: form.bellTimes } : {}),
        days: form.days.map(({ day, start, minutes, periods }) =>
          form.bellTimes ? { day, periods } : { day, start, minutes: number(minutes) },
        ),
      };
    case 'daily':
      return { ...common, ...time };
    case 'monthly':
      return form.monthBy === 'date'
        ? { ...common, ...time, onDate: number(form.onDate) }
        : { ...common, ...time, onWeekday: { nth: Number(form.nth), day: form.nthDay } };
    case 'dates':
      return {
        ...common,
        ...time,
        dates: [...form.dates]
          .sort()
          .map((date) => (form.ownTimes[date] ? { date, ...form.ownTimes[date] } : date)),
      };
  }
}

function endsOf(form: SeriesForm) {
  if (form.endsBy === 'date') return { by: 'date', date: form.endDate };
  if (form.endsBy === 'count') return { by: 'count', count: number(form.count) };
  if (form.endsBy === 'hours') return { by: 'hours', hours: number(form.hours) };
  return { by: 'term' };
}

const FIELDS: Record<string, string> = {
  'ends.date': 'endDate',
  'ends.count': 'count',
  'ends.hours': 'hours',
};
const SENTENCES: Record<string, string> = {
  endDate: 'Choose a date.',
  count: 'Give a number from 1 to 400.',
  hours: 'Give a number of hours.',
  every: 'Give a whole number from 1 to 26.',
  minutes: 'Give a length from 1 to 720 minutes.',
};

/** A fault of the request, at the field of the form that it belongs to. */
export function fieldOf(path: string): string {
  const own = path
    .replace(/^series\.0\./, '')
    .replace(/^pattern\./, '')
    .replace(/^pattern$/, 'days');
  const day = /^days\.(\d+)\.periods/.exec(own);
  if (day) return `days.${day[1]}.start`;
  return FIELDS[own] ?? own.replace(/^dates\..*/, 'dates').replace(/^onWeekday\..*/, 'nth');
}

/** The schema's faults, at the fields of the form. */
export function formFaults(form: SeriesForm): Record<string, string> {
  const result = SeriesInput.safeParse(draftOf(form));
  if (result.success) return {};
  const faults: Record<string, string> = {};
  for (const { path, message } of faultsOf(result.error)) {
    const field = fieldOf(path.join('.'));
    faults[field] ??= SENTENCES[field] ?? message;
  }
  return faults;
}

/** Adds or removes a weekday; a new one takes the time of the one before it. */
export function toggleDay(days: DayForm[], day: Weekday): DayForm[] {
  if (days.some((d) => d.day === day)) return days.filter((d) => d.day !== day);
  const last = days.at(-1);
  const added: DayForm[] = [
    ...days,
    { day, start: last?.start || '18:30', minutes: last?.minutes || 80, periods: last?.periods ?? [] },
  ];
  return added.sort((a, b) => WEEKDAYS.indexOf(a.day) - WEEKDAYS.indexOf(b.day));
}

/** Consecutive periods by pressing them: one more at either end, or one alone. */
export function togglePeriod(chosen: string[], name: string, order: readonly string[]): string[] {
  if (chosen.includes(name)) return chosen.length > 1 ? [name] : [];
  const places = [...chosen, name].map((n) => order.indexOf(n));
  return order.slice(Math.min(...places), Math.max(...places) + 1);
}
