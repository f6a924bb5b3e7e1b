import { Tooltip } from '@mantine/core';
import { memo } from 'react';
import { useNavigate } from 'react-router';
import { isStanding, type CourseDetail, type SessionInfo } from '@nimble-bell/core/api';
import { countWords, instantWords, toLocalDate, toWall } from '@nimble-bell/core/calendar';
import { crowds, piles, type Crowd } from './crowds';
import classes from './ribbon.module.css';

export const HEIGHT = 46;
export const BASE = 30;
/** Where the names of the weeks end, and what can be pressed begins. */
const TOP = 16;
/** So many are named; more are counted. */
const NAMED = 6;

export const isDated = (s: SessionInfo) => !isStanding(s.kind);

/** What is found about sessions, by session. */
export function findingsOf(course: CourseDetail): Map<string, string> {
  const findings = new Map(
    course.findings.filter((f) => f.session && f.level !== 'advises').map((f) => [f.session!, f.text]),
  );
  for (const c of course.clashes)
    if (c.sessionId) findings.set(c.sessionId, `clashes with ${c.other.course} ${c.other.title}`);
  return findings;
}

interface TicksProps {
  course: CourseDetail;
  /** Where a moment of a day stands on the ribbon, in pixels. */
  x: (day: number, minutes: number) => number;
}

/** A tick for each session; what crowds is pressed together, and leads to its week. */
export const Ticks = memo(function Ticks({ course, x }: TicksProps) {
  const findings = findingsOf(course);
  const at = (s: SessionInfo) => x(toWall(course.term.zone, s.startsAt).day, 720);
  return crowds(course.sessions.filter(isDated), at).map((crowd) => (
    <Together key={crowd.those[0]!.id} crowd={crowd} at={at} course={course} findings={findings} />
  ));
});

interface TogetherProps {
  crowd: Crowd<SessionInfo>;
  at: (s: SessionInfo) => number;
  course: CourseDetail;
  findings: ReadonlyMap<string, string>;
}

function Together({ crowd, at, course, findings }: TogetherProps) {
  const navigate = useNavigate();
  const { zone } = course.term;
  const { from, to, those } = crowd;
  const words = (s: SessionInfo) =>
    `${s.seriesTitle}, ${instantWords(s.startsAt, zone)}: ${s.state}${findings.has(s.id) ? `. ${findings.get(s.id)}` : ''}`;
  const more = those.length - NAMED;
  const go =
    those.length === 1
      ? `/course/${course.id}/session/${those[0]!.id}`
      : `/course/${course.id}/plan/week?of=${toLocalDate(toWall(zone, those[0]!.startsAt).day)}`;
  return (
    <Tooltip
      multiline
      label={
        <>
          {those.slice(0, NAMED).map((s) => (
            <div key={s.id}>{words(s)}</div>
          ))}
          {more > 0 && <div>{countWords(more, 'more', 'more')}</div>}
        </>
      }
    >
      <g className={classes.tick} onClick={() => void navigate(go)} data-sessions={those.length}>
        <rect x={from} y={TOP} width={to - from} height={HEIGHT - TOP} fill="transparent" />
        {piles(those, at).map((pile) => (
          <Pile key={pile[0]!.id} pile={pile} at={at(pile[0]!)} findings={findings} />
        ))}
      </g>
    </Tooltip>
  );
}

/** What is not as usual is what a pile shows. */
const TELLING: SessionInfo['state'][] = ['live', 'moved', 'cancelled', 'planned', 'held'];

function Pile({
  pile,
  at,
  findings,
}: {
  pile: SessionInfo[];
  at: number;
  findings: TogetherProps['findings'];
}) {
  const state = TELLING.find((t) => pile.some((s) => s.state === t)) ?? pile[0]!.state;
  return (
    <g data-state={state}>
      {pile.some((s) => findings.has(s.id)) && (
        <path d={`M${at - 4} ${BASE + 12}h8`} className={classes.found} />
      )}
      {pile.length > 1 && (
        <rect x={at + 0.5} y={BASE - 12} width={5} height={13} rx={1.5} className={classes.shape} />
      )}
      <Shape at={at} state={state} />
    </g>
  );
}

/** Told by shape first: a full bar was held, an outline is planned, a diamond was moved, a cross is cancelled. */
function Shape({ at, state }: { at: number; state: SessionInfo['state'] }) {
  if (state === 'cancelled')
    return <path d={`M${at - 3} ${BASE - 6}l6 8m0 -8l-6 8`} className={classes.cross} />;
  if (state === 'moved') return <path d={`M${at} ${BASE - 8}l4 6l-4 6l-4 -6z`} className={classes.diamond} />;
  return <rect x={at - 2.5} y={BASE - 9} width={5} height={13} rx={1.5} className={classes.shape} />;
}
