import { Anchor, Button, Container, Group, Paper, Stack, Text, Title } from '@mantine/core';
import { lazy, Suspense, useEffect, useState, useDeferredValue } from 'react';
import { Link, useParams } from 'react-router';
import type { MyCourse, SessionInfo } from '@nimble-bell/core/api';
import {
  clockWords,
  countWords,
  dayWords,
  durationWords,
  instantWords,
  listWords,
  ownTimesWords,
  timesWords,
  zoneWords,
} from '@nimble-bell/core/calendar';
import { useDisclosure } from '@mantine/hooks';
import { telephoneWords } from '@nimble-bell/core/mail';
import { Bar } from '../app/Bar';
import { Shell } from '../app/Shell';
import { useAbout } from '../app/title';
import { serverNow, useNow } from '../app/clock';
import { useAsked, useMe, stopOf } from '../app/queries';
import { usePainted } from '../app/usePainted';
import frame from '../app/frame.module.css';
import { rememberHome } from '../offline/register';
import { Fault } from '../ui/Fault';
import { FeedPanel } from '../ui/FeedPanel';
import { Materials } from '../ui/Materials';
import { NoticeBody } from '../ui/NoticeBody';
import { Empty, Panel } from '../ui/Panel';
import { RecordingLine } from '../ui/RecordingLine';
import { SessionRows } from '../ui/SessionRows';
import { AboutMe } from './AboutMe';
import { Answers, CannotCome } from './Answers';
import { Attendance } from './Attendance';
import type { DoorState } from '@nimble-bell/core/door';

const CourseSearch = lazy(() => import('../watch/CourseSearch'));

/** Searching is loaded when it is asked for: this page is light. */
function Searching(props: { course: string; to: (recording: string) => string }) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <Button variant="subtle" size="compact-sm" px={0} mb="xs" onClick={() => setOpen(true)}>
        Search what was said and written
      </Button>
    );
  return (
    <Suspense>
      <CourseSearch {...props} begins />
    </Suspense>
  );
}

const NEAR_MS = 30 * 60_000;

/** Asked often while something is about to change: a class near or on, a recording on its way. */
function pollOf(mine: MyCourse | undefined): number {
  const near = mine?.sessions.some((s) => s.state === 'live' || Math.abs(s.startsAt - serverNow()) < NEAR_MS);
  return near || mine?.recordings.some((r) => r.state !== 'ready') ? 2000 : 20_000;
}

/** A student's page, by their link: what is next and in how long, one button, the recordings, the term. */
export function StudentPage() {
  const { code } = useParams();
  useMe();
  const mine = useAsked<MyCourse>('/my-course', { every: pollOf });
  // Drawn in slices: a weak phone answers meanwhile.
  const shown = useDeferredValue(mine.data);
  const named = mine.data?.course;
  useAbout(named && `${named.code} ${named.title}`);
  useEffect(() => {
    if (named) rememberHome(`/in/${code}`);
  }, [named, code]);
  const stop = stopOf(mine);
  if (stop) return <Fault error={stop} />;
  if (!shown) return <Shell label="Loading your course" />;
  const { course, me, teachers } = shown;
  return (
    <>
      <Bar home={`/in/${code}`}>
        <span className={frame.grow} />
        <Text size="sm">{me.name}</Text>
      </Bar>
      <Container size="sm" py="lg" component="main" id="content">
        <Title order={1} size="h2">
          {course.code} {course.title}
        </Title>
        <Text c="dimmed" mb="md">
          With {listWords(teachers)}. Times are {zoneWords(me.zone)} time.
        </Text>
        <Stack>
          <Next mine={shown} />
          <Rest mine={shown} />
        </Stack>
      </Container>
    </>
  );
}

function Rest({ mine }: { mine: MyCourse }) {
  const { code } = useParams();
  const { me, recordings } = mine;
  if (!usePainted()) return null;
  return (
    <>
      <Rooms mine={mine} />
      <Notices mine={mine} />
      <Panel
        title="Recordings"
        about={recordings.length ? 'Watch what you missed, or watch it again.' : undefined}
      >
        {recordings.length === 0 && <Empty>There is no recording yet.</Empty>}
        {recordings.length > 1 && (
          <Searching course={mine.course.id} to={(id) => `/in/${code}/watch/${id}`} />
        )}
        <Stack gap="sm">
          {recordings.map((r) => (
            <RecordingLine
              key={r.id}
              recording={{ ...r, title: `${r.title}, ${instantWords(r.startsAt, me.zone)}` }}
              to={`/in/${code}/watch/${r.id}`}
            />
          ))}
        </Stack>
      </Panel>
      {mine.materials.some((m) => m.sessionId === null) && (
        <Panel title="Files and links">
          <Materials materials={mine.materials.filter((m) => m.sessionId === null)} />
        </Panel>
      )}
      <Answers mine={mine} />
      <Written mine={mine} />
      <TermList mine={mine} />
      <HowItGoes mine={mine} />
      <Attendance mine={mine} />
      <FeedPanel
        course={null}
        about={`Your classes in your own calendar, in ${zoneWords(me.zone)} time, and up to date.`}
      />
      <AboutMe mine={mine} />
    </>
  );
}

function Next({ mine }: { mine: MyCourse }) {
  const { code } = useParams();
  const now = useNow(1000);
  const { me, sessions } = mine;
  const ahead = sessions.filter(
    (s) => s.state === 'live' || (s.state !== 'held' && s.state !== 'cancelled' && s.endsAt > now),
  );
  const next = ahead.find((s) => s.state === 'live') ?? ahead[0];
  const last = sessions.filter((s) => s.state === 'held').at(-1);
  if (!next) return <Empty>No session is ahead in this term.</Empty>;
  const { door } = next;
  const files = mine.materials.filter((m) => m.sessionId === next.id);
  const wait = next.startsAt - now;
  return (
    <Paper
      withBorder
      p="lg"
      style={{ borderLeft: '6px solid var(--brass)' }}
      component="section"
      aria-label="Next session"
    >
      {last && now - last.endsAt < 6 * 3_600_000 && (
        <Text size="sm" mb="xs" data-testid="over">
          {last.seriesTitle} {last.number} is over.
        </Text>
      )}
      <Text size="sm" c="dimmed">
        {next.state === 'live' ? 'In class now' : wait > 0 ? `Next, in ${waitWords(wait)}` : 'It is time'}
      </Text>
      <Title order={2} size="h3">
        {next.seriesTitle} {next.number}
        {next.title && `: ${next.title}`}
      </Title>
      <Text className="figures" mb="sm">
        {instantWords(next.startsAt, me.zone)} to {clockWords(next.endsAt, me.zone)}
      </Text>
      <Door door={door} code={code} next={next} me={me} />
      {mine.telephone && (
        <Text size="sm" mt="sm" className="figures">
          {telephoneWords(mine.telephone.number, mine.telephone.pin)}
        </Text>
      )}
      <NextActions next={next} mine={mine} />
      {files.length > 0 && (
        <>
          <Text size="sm" fw={600} mt="sm">
            For this session
          </Text>
          <Materials materials={files} />
        </>
      )}
    </Paper>
  );
}

/** What is on the board for this reader now. */
function Notices({ mine }: { mine: MyCourse }) {
  if (!mine.notices.length) return null;
  return (
    <Panel title="Notices">
      <Stack gap="md">
        {mine.notices.map((n) => (
          <article key={n.id} aria-label={n.title}>
            <Title order={3} size="h5">
              {n.title}
            </Title>
            <Text size="sm" c="dimmed">
              {n.by}, {instantWords(Math.max(n.from, n.at), mine.me.zone)}
            </Text>
            <NoticeBody body={n.body} days={n.days} zone={mine.me.zone} />
          </article>
        ))}
      </Stack>
    </Panel>
  );
}

/** The sessions around which one may write now, and those where something stands. */
function Written({ mine }: { mine: MyCourse }) {
  const { code } = useParams();
  const open = mine.sessions
    .filter(({ writing }) => writing && (writing.now || writing.written))
    .slice(-WRITTEN);
  if (!open.length) return null;
  return (
    <Panel title="Before and after class">
      {open.map(({ id, seriesTitle, number, startsAt, writing }) => (
        <Group key={id} justify="space-between" py={3}>
          <Text>
            {seriesTitle} {number}, {instantWords(startsAt, mine.me.zone)}
          </Text>
          <Anchor component={Link} to={`/in/${code}/written/${id}`}>
            {writing!.written > 0 ? `${writing!.written} written` : 'Write'}
            {writing!.written > 0 && writing!.now && ', write'}
          </Anchor>
        </Group>
      ))}
    </Panel>
  );
}
const WRITTEN = 6;

/** The rooms that stand open all term. */
function Rooms({ mine }: { mine: MyCourse }) {
  const { code } = useParams();
  if (!mine.rooms.length) return null;
  return (
    <Panel title="Open all term">
      {mine.rooms.map((r) => (
        <Group key={r.id} justify="space-between">
          <Text>
            {r.seriesTitle}
            {r.state === 'live' && ', somebody teaches there now'}
          </Text>
          {r.door.open && (
            <Button component={Link} to={`/in/${code}/room/${r.id}`} variant="default">
              Go in
            </Button>
          )}
        </Group>
      ))}
    </Panel>
  );
}

function waitWords(ms: number): string {
  const minutes = Math.ceil(ms / 60_000);
  if (minutes > 48 * 60) return countWords(Math.round(minutes / 1440), 'day');
  return durationWords(minutes);
}

const SHOWN = 8;

/** The whole term, the next sessions first. */
function TermList({ mine }: { mine: MyCourse }) {
  const [open, { toggle }] = useDisclosure();
  const now = useNow(60_000);
  const { zone } = mine.me;
  const home = mine.course.term.zone;
  const ahead = mine.sessions.filter((s) => s.endsAt > now && s.state !== 'held');
  const takingPlace = ahead.filter((s) => s.state !== 'cancelled');
  return (
    <Panel
      title="The term ahead"
      about={`${countWords(takingPlace.length, 'session')} until ${dayWords(mine.course.term.lastDay)}`}
    >
      {ownTimesWords(takingPlace, zone, home) && <OwnTimes sessions={takingPlace} zone={zone} home={home} />}
      <SessionRows sessions={open ? ahead : ahead.slice(0, SHOWN)} zone={zone} />
      {ahead.length > SHOWN && (
        <Button variant="default" size="compact-sm" mt="xs" aria-expanded={open} onClick={toggle}>
          {open ? 'Show the next ones alone' : `Show all ${ahead.length}`}
        </Button>
      )}
    </Panel>
  );
}

/** When each series is by the reader's clock, with the weeks in which it is otherwise. */
function OwnTimes({ sessions, zone, home }: { sessions: SessionInfo[]; zone: string; home: string }) {
  const series = [...new Map(sessions.map((s) => [s.seriesId, s.seriesTitle]))];
  return (
    <Text size="sm" mb="xs" component="div">
      By your clock in {zoneWords(zone)}, not that in {zoneWords(home)}:
      {series.map(([id, title]) => (
        <div key={id}>
          {title}:{' '}
          {timesWords(
            sessions.filter((s) => s.seriesId === id),
            zone,
            home,
          )}
        </div>
      ))}
    </Text>
  );
}

/** What is recorded, and what one may do in class. */
function HowItGoes({ mine }: { mine: MyCourse }) {
  return (
    <Panel title="In class">
      <Text size="sm">{mine.inClass?.may}</Text>
      <Text size="sm" mt={4}>
        {mine.inClass?.recorded}
      </Text>
      {mine.countsPart && (
        <Anchor component={Link} to="part" size="sm">
          It is counted how you take part
        </Anchor>
      )}
    </Panel>
  );
}

interface DoorProps {
  door: DoorState;
  code: string | undefined;
  next: SessionInfo & { door: DoorState };
  me: MyCourse['me'];
}

function Door(props: DoorProps) {
  const { door, code, next, me } = props;
  return door.open ? (
    <Button component={Link} to={`/in/${code}/room/${next.id}`} size="md">
      Enter the class
    </Button>
  ) : (
    <Text data-testid="door" fw={550}>
      {door.because === 'early'
        ? `The door opens ${instantWords(door.opensAt, me.zone)}.`
        : door.because === 'teacher'
          ? 'The door opens when your teacher rings in. This page tells you.'
          : 'The door is shut.'}
    </Text>
  );
}

function NextActions({ next, mine }: { next: SessionInfo & { door: DoorState }; mine: MyCourse }) {
  return (
    <Group gap="md" mt="sm">
      <Anchor component={Link} to={`room/${next.id}?try`} size="sm">
        Try camera and microphone
      </Anchor>
      {next.state !== 'live' && (
        <Anchor
          component="button"
          type="button"
          size="sm"
          onClick={() => void import('./entry').then((m) => m.saveEntry(mine, next))}
        >
          Put it in my calendar
        </Anchor>
      )}
      {next.state !== 'live' && <CannotCome mine={mine} session={next} />}
    </Group>
  );
}
