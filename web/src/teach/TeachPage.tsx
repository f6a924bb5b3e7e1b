import { Button, Group, Paper, Stack, Text, Title } from '@mantine/core';
import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import type { SessionInfo } from '@nimble-bell/core/api';
import { whenWords } from '@nimble-bell/core/recording';
import { countWords, durationWords, instantWords, zoneWords } from '@nimble-bell/core/calendar';
import { doorFor } from '@nimble-bell/core/door';
import { useNow } from '../app/clock';
import { useThisCourse } from '../app/course';
import { Empty, Panel } from '../ui/Panel';
import { SessionRows } from '../ui/SessionRows';
import { LatestWritten } from '../writing/LatestWritten';

// What two pages share and none of the first needs.
const TryIt = lazy(() => import('../ui/TryIt'));

/** The next session and the way into its room. */
export function TeachPage() {
  const course = useThisCourse();
  const now = useNow(1000);
  const ahead = course.sessions.filter(
    (s) => s.state === 'live' || (s.endsAt > now && s.state !== 'cancelled' && s.state !== 'held'),
  );
  const [next, ...rest] = [...ahead].sort(
    (a, b) => Number(b.state === 'live') - Number(a.state === 'live') || a.startsAt - b.startsAt,
  );
  return (
    <Stack>
      <Title order={1} size="h2">
        Teach
      </Title>
      {next ? <NextSession session={next} now={now} /> : <Empty>No session is ahead in this term.</Empty>}
      {course.standing.length > 0 && (
        <Panel title="Without dates">
          {course.standing.map((s) => (
            <Group key={s.id} justify="space-between" py={3}>
              <Text>{s.seriesTitle}</Text>
              <Button component={Link} to={`/room/${s.id}`} variant="default" size="compact-sm">
                {s.state === 'live' ? 'Go back in' : s.kind === 'capture' ? 'Record now' : 'Open the room'}
              </Button>
            </Group>
          ))}
        </Panel>
      )}
      <LatestWritten />
      {rest.length > 0 && (
        <Panel title="After that" about={countWords(rest.length, 'session')}>
          <SessionRows sessions={rest.slice(0, 8)} zone={course.term.zone} />
        </Panel>
      )}
    </Stack>
  );
}

function NextSession({ session, now }: { session: SessionInfo; now: number }) {
  const course = useThisCourse();
  const door = doorFor(session, course.door, course.role, now);
  const wait = Math.max(0, Math.round((session.startsAt - now) / 60_000));
  return (
    <Paper
      withBorder
      p="xl"
      style={{ borderLeft: '6px solid var(--brass)' }}
      component="section"
      aria-label="Next session"
    >
      <Group justify="space-between" wrap="nowrap">
        <div>
          <Text size="sm" c="dimmed">
            {session.state === 'live'
              ? 'In class now'
              : wait > 0
                ? `In ${durationWords(wait)}`
                : 'It is time'}
          </Text>
          <Title order={2} size="h3">
            {session.seriesTitle} {session.number}
            {session.title && `: ${session.title}`}
          </Title>
          <Text className="figures">
            {instantWords(session.startsAt, course.term.zone)} in {zoneWords(course.term.zone)},{' '}
            {durationWords(session.minutes)}
            {session.lingerMinutes > 0 && ` and ${session.lingerMinutes} min to linger`}
          </Text>
          <Text size="sm" c="dimmed">
            {course.recordingPlan?.automatic
              ? `Recorded ${whenWords(course.recordingPlan)}.`
              : 'Not recorded: the plan does not ask for it.'}{' '}
            {course.door.teacherFirst && 'Students walk in when you have rung in.'}
          </Text>
        </div>
        <Group gap="xs" justify="flex-end">
          {session.state !== 'live' && (
            <Suspense>
              <TryIt session={session.id} students={course.counts.students} />
            </Suspense>
          )}
          {door.open ? (
            <Button component={Link} to={`/room/${session.id}`} size="md">
              {session.state === 'live' ? 'Go back in' : 'Open the room'}
            </Button>
          ) : (
            <Text c="dimmed" ta="right">
              {door.because === 'early'
                ? `The room can be set up from ${instantWords(door.opensAt, course.term.zone)}`
                : 'The room is shut'}
            </Text>
          )}
        </Group>
      </Group>
    </Paper>
  );
}
