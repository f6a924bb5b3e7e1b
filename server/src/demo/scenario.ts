import type {
  BellTimesInput,
  MeetingPattern,
  PreparedInput,
  SeriesKind,
  Term,
  Weekday,
  WeeklyPattern,
} from '@nimble-bell/core/api';
import {
  dateIn,
  mondayOf,
  toEpochDay,
  toClock,
  toLocalDate,
  toWall,
  weekdayOf,
  WEEKDAYS,
  type Instant,
} from '@nimble-bell/core/calendar';

/** The number of the course that one may call; no telephone has it. */
export const LINE = '+1 902 555 0140';

export const DEMO_PASSWORD = 'saltmarsh';
export const HOME_ZONE = 'America/Halifax';
export const STUDENT_ZONES = [
  HOME_ZONE,
  HOME_ZONE,
  HOME_ZONE,
  'America/St_Johns',
  'Atlantic/Azores',
  'Europe/Lisbon',
  'America/Port_of_Spain',
];

export const TEACHERS = {
  maren: { name: 'Maren Oduya', email: 'maren.oduya@saltmarsh.example' },
  teo: { name: 'Teo Vanterpool', email: 'teo.vanterpool@saltmarsh.example' },
  ines: { name: 'Ines Calloway', email: 'ines.calloway@saltmarsh.example' },
};

/** A notice of the demo, with the plan of the day. */
export const NOTICE = {
  title: 'Bring chart 4012',
  text: 'And a sharp pencil, dividers, and this year’s tide tables.',
};
/** Who has stopped coming: by their number among all students. */
export const SLIPPING: readonly number[] = [13, 27];

/** What some of the class say of a lecture when it is over. */
export const THOUGHTS: readonly string[] = [
  'The triangle on the board made it click.',
  'A little fast where the stream comes in.',
  'More examples with a falling tide, please.',
  'I liked that we worked it out before you showed it.',
  'The sound was low from the harbour office.',
  'Could the chart stay on the stage longer?',
];

/** What is written around the lectures: by whom of the class (`null`: the teacher), to whom, how long before now in hours. */
export const WRITTEN: readonly {
  by: number | null;
  to: 'class' | 'teachers';
  hours: number;
  text: string;
}[] = [
  { by: 4, to: 'class', hours: 20, text: 'Is last year’s tide table good enough for the exercises?' },
  { by: null, to: 'class', hours: 19, text: 'For the exercises yes; at sea never.' },
  { by: 9, to: 'teachers', hours: 5, text: 'I join from the harbour office today, it may be loud.' },
];

export const noticeBody = (now: Instant) => ({
  type: 'doc',
  content: [
    { type: 'paragraph', content: [{ type: 'text', text: NOTICE.text }] },
    { type: 'dayPlan', attrs: { date: dateIn(HOME_ZONE, now) } },
  ],
});

export const addressOf = (name: string) => `${name.toLowerCase().replaceAll(' ', '.')}@saltmarsh.example`;

/**
 * The term laid around an instant: today is in teaching week 6, with a long weekend and a reading week behind it and
 * a day swap ahead.
 */
export function demoTerm(now: Instant): Term {
  const monday = mondayOf(toWall(HOME_ZONE, now).day) - 6 * 7;
  const day = (offset: number) => toLocalDate(monday + offset);
  return {
    name: 'Autumn evenings',
    zone: HOME_ZONE,
    firstDay: day(0),
    lastDay: day(15 * 7 - 1),
    daysOff: [
      { from: day(2 * 7 + 4), to: day(3 * 7), name: 'Harbour Days weekend' },
      { from: day(4 * 7), to: day(4 * 7 + 6), name: 'Reading week' },
      { from: day(10 * 7 + 1), to: day(10 * 7 + 1), name: 'Lantern Night' },
    ],
    daySwaps: [{ date: day(11 * 7 + 2), follows: 'friday', name: 'Friday timetable' }],
  };
}

/** When the next lecture starts: 18:30 if that is within the hour, or else the half hour that is. */
function nextStart(now: Instant): { weekday: number; start: string } {
  const wall = toWall(HOME_ZONE, now);
  const evening = 18 * 60 + 30;
  const ahead = evening - wall.minutes;
  const minutes = ahead >= 5 && ahead <= 60 ? evening : Math.ceil((wall.minutes + 5) / 30) * 30;
  const day = wall.day + Math.floor(minutes / 1440);
  return { weekday: weekdayOf(day), start: toClock(minutes) };
}

const weekday = (index: number): Weekday => WEEKDAYS[((index % 7) + 7) % 7]!;

export interface DemoCourse {
  code: string;
  title: string;
  teacher: keyof typeof TEACHERS;
  assistant?: keyof typeof TEACHERS;
  /** Indexes of invented people, first and one past the last. */
  students: [number, number];
  groups: string[];
  series: DemoSeries[];
}

export interface DemoSeries {
  title: string;
  kind: SeriesKind;
  pattern: MeetingPattern | null;
  group: string | null;
  expected?: number;
}

/** The hours at which evening classes begin. */
export const DEMO_BELLS: BellTimesInput = {
  name: 'Evenings',
  periods: [
    { name: 'E1', start: '17:00', end: '17:50' },
    { name: 'E2', start: '18:00', end: '18:25' },
    { name: 'E3', start: '18:30', end: '19:50' },
    { name: 'E4', start: '20:00', end: '21:20' },
  ],
};

/** The term after this one, to carry courses over to. */
export function nextTerm(term: Term): Term {
  const monday = mondayOf(toEpochDay(term.lastDay)) + 5 * 7;
  const day = (offset: number) => toLocalDate(monday + offset);
  return {
    name: 'Spring evenings',
    zone: term.zone,
    firstDay: day(0),
    lastDay: day(14 * 7 - 1),
    daysOff: [
      { from: day(6 * 7), to: day(6 * 7 + 6), name: 'Ice week' },
      { from: day(9 * 7 + 3), to: day(9 * 7 + 4), name: 'Launching Days' },
    ],
    daySwaps: [],
  };
}

const weekly = (days: WeeklyPattern['days'], more: Partial<WeeklyPattern> = {}): WeeklyPattern => ({
  kind: 'weekly',
  every: 1,
  lingerMinutes: 0,
  ends: { by: 'term' },
  days,
  ...more,
});

/** Lectures twice a week, a lab for each group, office hours, and a room without dates. */
function navigationSeries(today: number, start: string, groups: string[]): DemoCourse['series'] {
  const labDay = weekday(today + 3);
  return [
    {
      title: 'Lecture',
      kind: 'class',
      group: null,
      pattern: weekly(
        [
          { day: weekday(today), start, minutes: 80 },
          { day: weekday(today + 2), start, minutes: 80 },
        ],
        { lingerMinutes: 10 },
      ),
    },
    ...groups.map((group, i) => ({
      title: `Chart lab ${group}`,
      kind: 'group' as const,
      group,
      pattern: weekly([{ day: labDay, start: toClock(17 * 60 + 30 + i * 50), minutes: 45 }], {
        every: 2,
      }),
    })),
    {
      title: 'Office hours',
      kind: 'office',
      group: null,
      pattern: weekly([{ day: weekday(today - 1), start: '17:00', minutes: 60 }]),
    },
    { title: 'Chart room', kind: 'open', group: null, pattern: null },
  ];
}

/** The three courses; the lecture days move with today, so that a lecture starts within the hour. */
export function demoCourses(now: Instant): DemoCourse[] {
  const { weekday: today, start } = nextStart(now);
  const groups = ['A', 'B', 'C', 'D'];
  return [
    {
      code: 'NAV-210',
      title: 'Coastal Navigation',
      teacher: 'maren',
      assistant: 'teo',
      students: [0, 34],
      groups,
      series: navigationSeries(today, start, groups),
    },
    {
      code: 'MET-140',
      title: 'Weather at Sea',
      teacher: 'maren',
      students: [23, 119],
      groups: [],
      series: [
        {
          title: 'Lecture',
          kind: 'class',
          group: null,
          pattern: weekly([{ day: weekday(today + 1), start: '18:30', minutes: 90 }]),
        },
      ],
    },
    {
      code: 'LOG-120',
      title: "Keeping a Ship's Log",
      teacher: 'ines',
      students: [120, 129],
      groups: [],
      series: [
        {
          title: 'Workshop',
          kind: 'class',
          group: null,
          expected: 8,
          pattern: weekly([{ day: weekday(today + 4), start: '10:00', minutes: 50 }], {
            ends: { by: 'count', count: 8 },
          }),
        },
      ],
    },
  ];
}

/** What was written in past classes: who (0 the teacher), and what. */
export const TALK: [number, string][] = [
  [0, 'Good evening. Chart 4012 on the table, please, and a sharp pencil.'],
  [3, 'Is the tidal diamond B the one off the breakwater?'],
  [0, 'Yes, B. Read its hour off before you draw the vector.'],
  [7, 'I get 2.3 knots for the hour after high water.'],
  [5, 'Same here, setting 210.'],
  [0, 'Well read. Now lay off the course to steer.'],
  [9, 'Do we correct for leeway before or after the stream?'],
  [0, 'After. The stream moves the water, leeway moves you through it.'],
];

/** What is prepared to be asked in Coastal Navigation. */
export const PREPARED: readonly PreparedInput[] = [
  {
    question: {
      text: 'Two hours after high water at Halifax: which way does the stream set?',
      kind: 'one',
      options: ['North-east', 'South-west', 'It is slack'],
      right: 1,
      anonymous: false,
    },
    ...{ part: 'Lecture', seconds: 60 },
  },
  {
    question: {
      text: 'How many metres of water are over the bar at 16:40?',
      kind: 'number',
      options: [],
      right: null,
      anonymous: false,
    },
    ...{ part: 'Lecture', seconds: 120 },
  },
  {
    question: {
      text: 'Are you ready to plot a course by yourself?',
      kind: 'yesNo',
      options: [],
      right: null,
      anonymous: true,
    },
    ...{ part: 'Discussion', seconds: null },
  },
];
