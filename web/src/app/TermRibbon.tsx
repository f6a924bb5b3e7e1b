import { Tooltip } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { isStanding, type CourseDetail, type SessionInfo, type Term } from '@nimble-bell/core/api';
import {
  dateWords,
  instantWords,
  termDays,
  toEpochDay,
  toLocalDate,
  toWall,
  type TermDays,
} from '@nimble-bell/core/calendar';
import { useNow } from './clock';
import type { Draft } from './course';
import classes from './ribbon.module.css';

const HEIGHT = 46;
const BASE = 30;

/** The whole term as one strip: a column a week, a tick a session, skipped days hatched, the week now in brass. */
export function TermRibbon({ course, draft }: { course: CourseDetail; draft: Draft | null }) {
  const { ref, width } = useElementSize();
  const days = useMemo(() => termDays(course.term), [course.term]);
  const now = useNow(30_000);
  const navigate = useNavigate();
  const firstMonday = days.weeks[0]!.monday;
  const perDay = width / (days.weeks.length * 7);
  const x = (day: number, minutes = 0) => (day - firstMonday + minutes / 1440) * perDay;
  const today = toWall(course.term.zone, now);
  const skipped = new Map(draft?.skipped.map((s) => [s.date, s.reason]));
  const findings = new Map(
    course.findings.filter((f) => f.session && f.level !== 'advises').map((f) => [f.session!, f.text]),
  );
  for (const c of course.clashes)
    if (c.sessionId) findings.set(c.sessionId, `clashes with ${c.other.course} ${c.other.title}`);
  const held = course.sessions.filter((s) => s.state === 'held').length;
  return (
    <div ref={ref}>
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
          <Weeks days={days} x={x} today={today.day} perWeek={perDay * 7} />
          <DaysOff term={course.term} days={days} x={x} perDay={perDay} />
          <line x1={0} x2={width} y1={BASE + 8} y2={BASE + 8} className={classes.base} />
          {!draft &&
            course.sessions
              .filter(isDated)
              .map((s) => (
                <Tick
                  key={s.id}
                  session={s}
                  zone={course.term.zone}
                  x={x}
                  finding={findings.get(s.id)}
                  go={() => void navigate(`/course/${course.id}/session/${s.id}`)}
                />
              ))}
          {draft &&
            course.sessions
              .filter(isDated)
              .map((s) => <Faint key={s.id} session={s} zone={course.term.zone} x={x} />)}
          {draft?.sessions.map((s) => {
            const wall = toWall(course.term.zone, s.startsAt);
            return (
              <rect
                key={s.date}
                x={x(wall.day, 720) - 3}
                y={BASE - 10}
                width={6}
                height={15}
                rx={2}
                className={classes.draft}
              />
            );
          })}
          {[...skipped].map(([date, reason]) => (
            <Tooltip key={date} label={`${dateWords(date)} is skipped: ${reason}`}>
              <text x={x(toEpochDay(date), 720)} y={BASE + 2} className={classes.skip}>
                ×
              </text>
            </Tooltip>
          ))}
          <line
            x1={x(today.day, today.minutes)}
            x2={x(today.day, today.minutes)}
            y1={14}
            y2={HEIGHT}
            className={classes.now}
          />
        </svg>
      )}
    </div>
  );
}

type X = (day: number, minutes?: number) => number;

function Weeks({ days, x, today, perWeek }: { days: TermDays; x: X; today: number; perWeek: number }) {
  return days.weeks.map((week) => {
    const isNow = today >= week.monday && today < week.monday + 7;
    const label =
      week.number === null ? (perWeek > 76 ? (week.breakName ?? 'Break') : '–') : String(week.number);
    return (
      <g key={week.monday}>
        <rect
          x={x(week.monday)}
          y={0}
          width={perWeek}
          height={HEIGHT}
          className={isNow ? classes.weekNow : classes.week}
        />
        <Tooltip
          label={`${week.number === null ? (week.breakName ?? 'Break') : `Week ${week.number}`}, from ${dateWords(toLocalDate(week.monday))}`}
        >
          <text x={x(week.monday) + perWeek / 2} y={13} className={isNow ? classes.labelNow : classes.label}>
            {isNow && perWeek > 62 ? `Week ${label}` : label}
          </text>
        </Tooltip>
      </g>
    );
  });
}

function DaysOff({ term, days, x, perDay }: { term: Term; days: TermDays; x: X; perDay: number }) {
  return term.daysOff.map((off) => {
    const from = Math.max(days.first, toEpochDay(off.from));
    const to = Math.min(days.last, toEpochDay(off.to));
    return (
      <Tooltip
        key={off.from + off.name}
        label={`${off.name}: ${dateWords(off.from)}${off.to > off.from ? ` to ${dateWords(off.to)}` : ''}`}
      >
        <rect
          x={x(from)}
          y={18}
          width={Math.max(0, to - from + 1) * perDay}
          height={HEIGHT - 18}
          className={classes.off}
        />
      </Tooltip>
    );
  });
}

interface TickProps {
  session: SessionInfo;
  zone: string;
  x: X;
}

const isDated = (s: SessionInfo) => !isStanding(s.kind);

/** Told by shape first: a full bar was held, an outline is planned, a diamond was moved, a cross is cancelled. */
function Tick({
  session,
  zone,
  x,
  go,
  finding,
}: TickProps & { go: () => void; finding: string | undefined }) {
  const wall = toWall(zone, session.startsAt);
  const at = x(wall.day, 720) + (session.group ? (session.group.charCodeAt(0) % 4) * 2 - 3 : 0);
  const words = `${session.seriesTitle}, ${instantWords(session.startsAt, zone)}: ${session.state}${finding ? `. ${finding}` : ''}`;
  return (
    <Tooltip label={words}>
      <g className={classes.tick} onClick={go} data-state={session.state}>
        <rect x={at - 5} y={16} width={10} height={HEIGHT - 16} fill="transparent" />
        {finding && <path d={`M${at - 4} ${BASE + 12}h8`} className={classes.found} />}
        {session.state === 'cancelled' ? (
          <path d={`M${at - 3} ${BASE - 6}l6 8m0 -8l-6 8`} className={classes.cross} />
        ) : session.state === 'moved' ? (
          <path d={`M${at} ${BASE - 8}l4 6l-4 6l-4 -6z`} className={classes.diamond} />
        ) : (
          <rect x={at - 2.5} y={BASE - 9} width={5} height={13} rx={1.5} className={classes.shape} />
        )}
      </g>
    </Tooltip>
  );
}

function Faint({ session, zone, x }: TickProps) {
  const wall = toWall(zone, session.startsAt);
  return <circle cx={x(wall.day, 720)} cy={BASE + 8} r={2} className={classes.faint} />;
}
