import { useElementSize } from '@mantine/hooks';
import { memo, useMemo } from 'react';
import type { CourseDetail, SessionInfo, Term } from '@nimble-bell/core/api';
import {
  dateWords,
  sameSkips,
  termDays,
  toEpochDay,
  toLocalDate,
  toWall,
  type TermDays,
} from '@nimble-bell/core/calendar';
import { useNow } from './clock';
import { draft } from './course';
import { BASE, findingsOf, HEIGHT, isDated, Ticks } from './RibbonTicks';
import { RibbonWalk } from './RibbonWalk';
import classes from './ribbon.module.css';

/** The whole term as one strip: a column a week, a tick a session, skipped days hatched, the week now in brass. */
export function TermRibbon({ course }: { course: CourseDetail }) {
  const { ref, width } = useElementSize();
  const days = useMemo(() => termDays(course.term), [course.term]);
  const now = useNow(30_000);
  const perDay = width / (days.weeks.length * 7);
  const x = useMemo(() => scale(days, perDay), [days, perDay]);
  const today = toWall(course.term.zone, now);
  const held = course.sessions.filter((s) => s.state === 'held').length;
  return (
    <div ref={ref} className={classes.around}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          className={classes.ribbon}
          role="img"
          aria-label={`${course.term.name}: ${course.sessions.length} sessions, ${held} held, from ${course.term.firstDay} to ${course.term.lastDay}.`}
        >
          <defs>
            <pattern
              id="hatch"
              width="5"
              height="5"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <rect width="1.6" height="5" className={classes.hatch} />
            </pattern>
          </defs>
          <Weeks days={days} perDay={perDay} today={today.day} />
          <DaysOff term={course.term} days={days} perDay={perDay} />
          <line x1={0} x2={width} y1={BASE + 8} y2={BASE + 8} className={classes.base} />
          <Sessions course={course} x={x} />
          <line
            x1={x(today.day, today.minutes)}
            x2={x(today.day, today.minutes)}
            y1={14}
            y2={HEIGHT}
            className={classes.now}
          />
        </svg>
      )}
      <Walk course={course} />
    </div>
  );
}

const Walk = memo(function Walk({ course }: { course: CourseDetail }) {
  const now = useNow(60_000);
  const sessions = useMemo(() => course.sessions.filter(isDated), [course.sessions]);
  const next = sessions.findIndex((s) => s.endsAt > now);
  return (
    <RibbonWalk
      course={course.id}
      zone={course.term.zone}
      sessions={sessions}
      findings={findingsOf(course)}
      from={next < 0 ? sessions.length - 1 : next}
    />
  );
});

interface Layer {
  days: TermDays;
  /** Pixels a day. */
  perDay: number;
}

const scale =
  (days: TermDays, perDay: number) =>
  (day: number, minutes = 0): number =>
    (day - days.weeks[0]!.monday + minutes / 1440) * perDay;

// The layers are drawn anew only for what is theirs: a keystroke in an editor changes the draft's alone.
const Weeks = memo(function Weeks({ days, perDay, today }: Layer & { today: number }) {
  const x = scale(days, perDay);
  const perWeek = perDay * 7;
  return days.weeks.map((week) => {
    const isNow = today >= week.monday && today < week.monday + 7;
    const name = week.number === null ? (week.breakName ?? 'Break') : `Week ${week.number}`;
    const label = week.number === null ? (perWeek > 76 ? name : '–') : String(week.number);
    return (
      <g key={week.monday}>
        <title>{`${name}, from ${dateWords(toLocalDate(week.monday))}`}</title>
        <rect
          x={x(week.monday)}
          y={0}
          width={perWeek}
          height={HEIGHT}
          className={isNow ? classes.weekNow : classes.week}
        />
        <text x={x(week.monday) + perWeek / 2} y={13} className={isNow ? classes.labelNow : classes.label}>
          {isNow && perWeek > 62 ? `Week ${label}` : label}
        </text>
      </g>
    );
  });
});

const DaysOff = memo(function DaysOff({ term, days, perDay }: Layer & { term: Term }) {
  const x = scale(days, perDay);
  return term.daysOff.map((off) => {
    const from = Math.max(days.first, toEpochDay(off.from));
    const to = Math.min(days.last, toEpochDay(off.to));
    return (
      <rect
        key={off.from + off.name}
        x={x(from)}
        y={18}
        width={Math.max(0, to - from + 1) * perDay}
        height={HEIGHT - 18}
        className={classes.off}
      >
        <title>{`${off.name}: ${dateWords(off.from)}${off.to > off.from ? ` to ${dateWords(off.to)}` : ''}`}</title>
      </rect>
    );
  });
});

interface OfSessions {
  sessions: readonly SessionInfo[];
  zone: string;
  x: ReturnType<typeof scale>;
}

/** What stands; while something is being drafted, that over it. */
function Sessions({ course, x }: { course: CourseDetail; x: OfSessions['x'] }) {
  const drafted = draft.use();
  if (!drafted) return <Ticks course={course} x={x} />;
  return (
    <>
      <Faint sessions={course.sessions} zone={course.term.zone} x={x} />
      <DraftTicks drafted={drafted} x={x} />
    </>
  );
}

/** What stands already, as dots under what is being drafted: one path for all. */
const Faint = memo(function Faint({ sessions, zone, x }: OfSessions) {
  const dots = sessions
    .filter(isDated)
    .map((s) => `M${x(toWall(zone, s.startsAt).day, 720).toFixed(1)} ${BASE + 8}h0`);
  return <path d={dots.join('')} className={classes.faint} />;
});

type Drafted = NonNullable<ReturnType<typeof draft.get>>;

const DraftTicks = memo(function DraftTicks({ drafted, x }: { drafted: Drafted; x: OfSessions['x'] }) {
  const bars = drafted.sessions.map(
    (s) => `M${(x(toEpochDay(s.date), 720) - 3).toFixed(1)} ${BASE - 10}h6v15h-6z`,
  );
  return (
    <>
      <path d={bars.join('')} className={classes.draft} />
      <Skips skipped={drafted.skipped} x={x} />
    </>
  );
});

const Skips = memo(
  function Skips({ skipped, x }: { skipped: Drafted['skipped']; x: OfSessions['x'] }) {
    return skipped.map(({ date, reason }) => (
      <text key={date} x={x(toEpochDay(date), 720)} y={BASE + 2} className={classes.skip}>
        ×<title>{`${dateWords(date)} is skipped: ${reason}`}</title>
      </text>
    ));
  },
  (a, b) => a.x === b.x && sameSkips(a.skipped, b.skipped),
);
