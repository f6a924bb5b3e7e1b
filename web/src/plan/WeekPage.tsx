import { Button, Group, Stack, Text, Title, VisuallyHidden } from '@mantine/core';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useSensor,
  useSensors,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { useElementSize } from '@mantine/hooks';
import { useState, type CSSProperties } from 'react';
import type { CourseDetail, SessionInfo } from '@nimble-bell/core/api';
import {
  clockWords,
  countWords,
  dateWords,
  instantWords,
  isLocalDate,
  mondayOf,
  termDays,
  timeWords,
  toClock,
  toEpochDay,
  toLocalDate,
  toMinutes,
  toWall,
  weekOf,
  type TeachingWeek,
  type TermDays,
} from '@nimble-bell/core/calendar';
import { useNavigate, useSearchParams } from 'react-router';
import { useNow } from '../app/clock';
import { useThisCourse } from '../app/course';
import { dragWords } from '../ui/dragWords';
import { CancelDays } from './CancelDays';
import { ChangePanel } from './ChangePanel';
import classes from './week.module.css';

/** A quarter of an hour is whole pixels: by key one goes exactly that far. */
const HOUR_PX = 48;
const SNAP_MINUTES = 5;

interface Moved {
  session: SessionInfo;
  to?: { date: string; start: string };
}

/** One week of the course as a timetable. A session is dragged to where it should be, or moved by the arrow keys. */
export function WeekPage() {
  const course = useThisCourse();
  const { zone } = course.term;
  const now = useNow(1000);
  const days = termDays(course.term);
  const today = Math.min(Math.max(toWall(zone, now).day, days.first), days.last);
  const [params, setParams] = useSearchParams();
  const asked = params.get('of') ?? '';
  const turned = isLocalDate(asked) ? Math.min(Math.max(toEpochDay(asked), days.first), days.last) : today;
  const monday = mondayOf(turned);
  const setTurned = (day: number) => setParams({ of: toLocalDate(day) }, { replace: true });
  const [moved, setMoved] = useState<Moved | null>(null);
  const [off, setOff] = useState(false);
  const sessions = course.sessions.filter((s) => mondayOf(toWall(zone, s.startsAt).day) === monday);
  const mayCancel = course.role === 'teacher' && sessions.some((s) => s.endsAt > now);
  return (
    <Stack>
      <Head
        week={weekOf(days, monday)}
        sessions={sessions}
        setTurned={setTurned}
        monday={monday}
        days={days}
        cancel={mayCancel ? () => setOff(true) : null}
      />
      <Grid course={course} days={days} monday={monday} sessions={sessions} setMoved={setMoved} now={now} />
      {sessions.length === 0 && <Text c="dimmed">No session in this week.</Text>}
      {off && <CancelDays course={course} monday={toLocalDate(monday)} close={() => setOff(false)} />}
      {moved && (
        <ChangePanel
          key={`${moved.session.id}${moved.to?.date}${moved.to?.start}`}
          course={course}
          session={moved.session}
          {...(moved.to ? { to: moved.to } : {})}
          close={() => setMoved(null)}
        />
      )}
    </Stack>
  );
}

interface GridProps {
  course: CourseDetail;
  days: TermDays;
  monday: number;
  sessions: SessionInfo[];
  setMoved: (value: Moved | null) => void;
  now: number;
}

/** The hours down, the days across, and the sessions where they are. */
function Grid({ course, days, monday, sessions, setMoved, now }: GridProps) {
  const { zone } = course.term;
  const { ref, width } = useElementSize();
  const [from, to] = hoursOf(sessions, zone);
  return (
    <div className={classes.week}>
      <Hours to={to} from={from} />
      <div className={classes.grid}>
        <Heads days={days} monday={monday} zone={zone} now={now} />
        <div
          ref={ref}
          className={classes.days}
          style={{ height: (to - from) * HOUR_PX, backgroundSize: `${100 / 7}% ${HOUR_PX}px` }}
        >
          {[0, 1, 2, 3, 4, 5, 6]
            .filter((i) => isOff(days, monday + i))
            .map((i) => (
              <div
                key={i}
                className={classes.off}
                style={{ left: `${(i * 100) / 7}%`, width: `${100 / 7}%` }}
              />
            ))}
          <Blocks
            dayWidth={width / 7}
            sessions={sessions}
            zone={zone}
            setMoved={setMoved}
            monday={monday}
            from={from}
            course={course}
          />
        </div>
      </div>
    </div>
  );
}

type Days = ReturnType<typeof termDays>;
const isOff = (days: Days, day: number) =>
  day < days.first || day > days.last || days.follows[day - days.first]! < 0;

/** The hours that hold the week's sessions, the evening at least. */
function hoursOf(sessions: readonly SessionInfo[], zone: string): [number, number] {
  const starts = sessions.map((s) => toWall(zone, s.startsAt).minutes / 60);
  const ends = sessions.map((s) => toWall(zone, s.startsAt).minutes / 60 + s.minutes / 60);
  return [
    Math.max(0, Math.floor(Math.min(15, ...starts)) - 1),
    Math.min(24, Math.ceil(Math.max(21, ...ends)) + 1),
  ];
}

/** Sessions at the same time stand side by side: which of how many. */
function lanesOf(session: SessionInfo, all: readonly SessionInfo[]): [number, number] {
  const beside = all.filter((s) => s.startsAt < session.endsAt && session.startsAt < s.endsAt);
  return [beside.findIndex((s) => s.id === session.id), beside.length];
}

/** Where a session lies after it was moved by so many pixels. */
export function placeAfter(
  session: Pick<SessionInfo, 'startsAt'>,
  zone: string,
  delta: { x: number; y: number },
  dayWidth: number,
): { date: string; start: string } | null {
  const wall = toWall(zone, session.startsAt);
  const days = Math.round(delta.x / dayWidth);
  const minutes = Math.round(((delta.y / HOUR_PX) * 60) / SNAP_MINUTES) * SNAP_MINUTES;
  if (days === 0 && minutes === 0) return null;
  const start = Math.min(1435, Math.max(0, wall.minutes + minutes));
  return { date: toLocalDate(wall.day + days), start: toClock(start) };
}

/** What is being dragged, if anything is: how far by key, in whole steps; null while it is moved by hand. */
const drag: { byKey: { x: number; y: number } | null } = { byKey: null };
function stepBy(x: number, y: number) {
  const { x: fromX, y: fromY } = drag.byKey ?? { x: 0, y: 0 };
  drag.byKey = { x: fromX + x, y: fromY + y };
  return drag.byKey;
}
function endDrag() {
  const { byKey } = drag;
  drag.byKey = null;
  return byKey;
}

/** Steps by key: days right, quarters of an hour down. */
const STEPS: Record<string, [number, number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowDown: [0, 1],
  ArrowUp: [0, -1],
};

/** What is moved by key goes by whole steps, wherever the page scrolls meanwhile: each is counted. */
const arrows =
  (dayWidth: number, stepped: (days: number, quarters: number, id: string) => void) =>
  (
    event: KeyboardEvent,
    {
      currentCoordinates: at,
      active,
    }: { currentCoordinates: { x: number; y: number }; active: UniqueIdentifier },
  ) => {
    const step = STEPS[event.code];
    if (!step) return undefined;
    const [days, quarters] = step;
    stepped(days, quarters, String(active));
    return { x: at.x + days * dayWidth, y: at.y + (quarters * HOUR_PX) / 4 };
  };

interface BlockProps {
  session: SessionInfo;
  zone: string;
  monday: number;
  from: number;
  lanes: [number, number];
  mayMove: boolean;
  open: () => void;
}

function Block({ session, zone, monday, from, lanes, mayMove, open }: BlockProps) {
  const { setNodeRef, attributes, listeners, transform, isDragging } = useDraggable({
    id: session.id,
    disabled: !mayMove,
  });
  const wall = toWall(zone, session.startsAt);
  const [lane, count] = lanes;
  const style: CSSProperties = {
    left: `calc(${((wall.day - monday + lane / count) * 100) / 7}% + 2px)`,
    width: `calc(${100 / 7 / count}% - 4px)`,
    top: (wall.minutes / 60 - from) * HOUR_PX,
    height: Math.max(22, (session.minutes / 60) * HOUR_PX - 2),
    ...(transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 3 } : {}),
  };
  const words = `${session.seriesTitle}, ${dateWords(toLocalDate(wall.day))} ${clockWords(session.startsAt, zone)}`;
  return (
    <div
      ref={setNodeRef}
      className={classes.block}
      style={style}
      data-state={session.state}
      {...(mayMove ? attributes : {})}
      {...(mayMove ? listeners : {})}
      aria-label={`${words}: ${session.state}`}
      {...(mayMove ? {} : { role: 'button', tabIndex: 0 })}
      onClick={open}
      onKeyDown={(e) => {
        // Space picks it up; Enter opens it.
        if (e.key === 'Enter' && !isDragging) open();
        else listeners?.onKeyDown?.(e);
      }}
    >
      <strong>{session.title ?? session.seriesTitle}</strong>
      <span>
        {clockWords(session.startsAt, zone)} {session.state === 'planned' ? '' : session.state}
      </span>
    </div>
  );
}

interface HeadProps {
  week: TeachingWeek | undefined;
  sessions: SessionInfo[];
  setTurned: (day: number) => void;
  monday: number;
  days: TermDays;
  cancel: (() => void) | null;
}

function Head(props: HeadProps) {
  const { week, sessions, setTurned, monday, days, cancel } = props;
  return (
    <Group justify="space-between" align="flex-start">
      <div>
        <Title order={1} size="h2">
          {week?.number ? `Week ${week.number}` : (week?.breakName ?? 'A week without a number')}
        </Title>
        <Text size="sm" c="dimmed">
          {countWords(sessions.length, 'session')}. Press one to open it, drag it to move it. By key: Enter
          opens; space, arrows, space move.
        </Text>
      </div>
      <Group gap="xs">
        {cancel && (
          <Button variant="default" onClick={cancel}>
            Cancel this week
          </Button>
        )}
        <Button variant="default" onClick={() => setTurned(monday - 7)} disabled={monday <= days.first}>
          Week before
        </Button>
        <Button variant="default" onClick={() => setTurned(monday + 7)} disabled={monday + 7 > days.last}>
          Week after
        </Button>
      </Group>
    </Group>
  );
}

function Hours({ to, from }: { to: number; from: number }) {
  return (
    <div className={classes.hours} style={{ height: (to - from) * HOUR_PX }}>
      {Array.from({ length: to - from }, (_, i) => (
        <span key={i} style={{ top: i * HOUR_PX }}>
          {timeWords((from + i) * 60)}
        </span>
      ))}
    </div>
  );
}

interface HeadsProps {
  days: TermDays;
  monday: number;
  zone: string;
  now: number;
}

function Heads(props: HeadsProps) {
  const { days, monday, zone, now } = props;
  return (
    <div className={classes.heads}>
      {[0, 1, 2, 3, 4, 5, 6].map((i) => (
        <span
          key={i}
          data-off={isOff(days, monday + i) || undefined}
          data-today={monday + i === toWall(zone, now).day || undefined}
        >
          {dateWords(toLocalDate(monday + i))}
          {isOff(days, monday + i) && <em>{days.reasons.get(monday + i) ?? 'outside the term'}</em>}
        </span>
      ))}
    </div>
  );
}

interface BlocksProps {
  dayWidth: number;
  sessions: SessionInfo[];
  zone: string;
  setMoved: (value: Moved | null) => void;
  monday: number;
  from: number;
  course: CourseDetail;
}

/** The week's sessions: each can be dragged to where it should be. */
function Blocks(props: BlocksProps) {
  const { dayWidth, sessions, zone, setMoved, monday, from, course } = props;
  const navigate = useNavigate();
  const mayMove = (s: SessionInfo) => course.role === 'teacher' && s.state !== 'held' && s.state !== 'live';
  // Where it would lie now: said at every step.
  const [lies, setLies] = useState<string | null>(null);
  const placeWords = (id: string, delta: { x: number; y: number }) => {
    const s = sessions.find((x) => x.id === id);
    const to = s && placeAfter(s, zone, delta, dayWidth);
    return to ? `${dateWords(to.date)}, ${timeWords(toMinutes(to.start))}` : 'where it was';
  };
  const stepped = (days: number, quarters: number, id: string) => {
    setLies(placeWords(id, stepBy(days * dayWidth, (quarters * HOUR_PX) / 4)));
  };
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: arrows(dayWidth, stepped),
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space'] },
    }),
  );
  const drop = ({ active, delta }: DragEndEvent) => {
    const session = sessions.find((s) => s.id === active.id);
    const target = session && placeAfter(session, zone, endDrag() ?? delta, dayWidth);
    setLies(null);
    if (session && target) setMoved({ session, to: target });
  };
  const words = dragWords({
    what: (id) => {
      const s = sessions.find((x) => x.id === id);
      return s ? `${s.seriesTitle}, ${instantWords(s.startsAt, zone)}` : 'A session';
    },
    where: () => lies,
    how: 'Left and right move it by a day, up and down by a quarter of an hour. Space puts it down, Escape leaves it.',
  });
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={drop}
      onDragStart={() => void endDrag()}
      onDragCancel={() => void endDrag()}
      accessibility={words}
    >
      <VisuallyHidden aria-live="assertive" data-testid="would-lie">
        {lies}
      </VisuallyHidden>
      {sessions.map((s) => (
        <Block
          key={s.id}
          {...{ session: s, zone, monday, from }}
          lanes={lanesOf(s, sessions)}
          mayMove={mayMove(s)}
          open={() =>
            mayMove(s) ? setMoved({ session: s }) : void navigate(`/course/${course.id}/session/${s.id}`)
          }
        />
      ))}
    </DndContext>
  );
}
