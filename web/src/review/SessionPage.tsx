import { Button, Group, Loader, Stack, Text, Title } from '@mantine/core';
import { lazy, Suspense } from 'react';
import { Link, useParams } from 'react-router';
import { isStanding, type SessionDetail } from '@nimble-bell/core/api';
import { durationWords, instantWords, listWords, zoneWords } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { useAsked, stopOf } from '../app/queries';
import { Fault } from '../ui/Fault';
import { ListedSwitch } from '../ui/ListedSwitch';
import { Materials } from '../ui/Materials';
import { Empty, Panel } from '../ui/Panel';
import { RecordingLine } from '../ui/RecordingLine';
import ClassNotes from '../ui/ClassNotes';
import { WritingPanel } from '../writing/WritingPanel';
import { AskedPanel } from './AskedPanel';
import { LogPanel } from './LogPanel';
import { Roll } from './Roll';

// What several pages share and none of the first needs.
const ClassBoards = lazy(() => import('../ui/ClassBoards'));
const TryIt = lazy(() => import('../ui/TryIt'));

/** Asked often while the class is on or its recording is prepared. */
const pollOf = (known: SessionDetail | undefined): number =>
  known?.session.state === 'live' || known?.recordings.some((r) => r.state !== 'ready') ? 1500 : 20_000;

/** One session afterwards: its recording and its roll. */
export function SessionPage() {
  const course = useThisCourse();
  const { session: id } = useParams();
  const detail = useAsked<SessionDetail>(`/sessions/${id}`, { every: pollOf });
  const stop = stopOf(detail);
  if (stop) return <Fault error={stop} />;
  if (!detail.data) return <Loader aria-label="Loading the session" />;
  const { session, roll, zone, replies, materials } = detail.data;
  return (
    <Stack>
      <Group justify="space-between">
        <div>
          <Title order={1} size="h2">
            {session.seriesTitle} {session.number}
          </Title>
          <Text className="figures">
            {instantWords(session.startsAt, zone)} in {zoneWords(zone)}, {durationWords(session.minutes)}:{' '}
            <strong>{session.state}</strong>
          </Text>
        </div>
        <WaysIn detail={detail.data} students={course.counts.students} />
      </Group>
      {course.role === 'teacher' && (session.state === 'planned' || session.state === 'moved') && (
        <ListedSwitch path={`/sessions/${session.id}`} listed={session.listed} />
      )}
      <Recordings detail={detail.data} to={`/course/${course.id}/watch`} />
      {materials.length > 0 && (
        <Panel title="Files and links">
          <Materials materials={materials} />
        </Panel>
      )}
      <ClassNotes session={session.id} name={`${session.seriesTitle} ${session.number}`} />
      {session.state === 'held' && (
        <Suspense>
          <ClassBoards session={session.id} name={`${session.seriesTitle} ${session.number}`} />
        </Suspense>
      )}
      {session.state !== 'live' && session.state !== 'cancelled' && !isStanding(session.kind) && (
        <WritingPanel
          session={session.id}
          me={detail.data.member}
          teaching
          zone={zone}
          held={session.state === 'held'}
        />
      )}
      {replies && session.state !== 'held' && <Replies replies={replies} />}
      {roll && (session.state === 'held' || session.state === 'live') && (
        <Roll roll={roll} zone={zone} session={session} />
      )}
      {session.state === 'held' && (
        <AskedPanel session={session.id} name={`${session.seriesTitle} ${session.number}`} zone={zone} />
      )}
      {(session.state === 'held' || session.state === 'live') && (
        <LogPanel session={session.id} name={`${session.seriesTitle} ${session.number}`} zone={zone} />
      )}
    </Stack>
  );
}

/** The session's room, and before it is taught a made-up class to try it with. */
function WaysIn({ detail: { session, door }, students }: { detail: SessionDetail; students: number }) {
  return (
    <Group gap="xs">
      {(session.state === 'planned' || session.state === 'moved') && (
        <Suspense>
          <TryIt session={session.id} students={students} />
        </Suspense>
      )}
      {door.open && (
        <Button component={Link} to={`/room/${session.id}`}>
          {session.state === 'live' ? 'Go back in' : 'Open the room'}
        </Button>
      )}
    </Group>
  );
}

function Recordings({ detail: { recordings, session }, to }: { detail: SessionDetail; to: string }) {
  return (
    <Panel title="Recording">
      {recordings.length === 0 && (
        <Empty>
          {session.state === 'held' ? 'This session was not recorded.' : 'Nothing is recorded yet.'}
        </Empty>
      )}
      {recordings.map((r) => (
        <RecordingLine key={r.id} recording={r} to={`${to}/${r.id}`} />
      ))}
    </Panel>
  );
}

const ANSWER_WORDS = { accepted: 'come', tentative: 'perhaps', declined: 'cannot' } as const;

/** Whose answer it is, and why it may not hold: given before a change, or by mail from another address. */
function nameOfReply(r: NonNullable<SessionDetail['replies']>[number]): string {
  const doubts = [r.outdated && 'before a change', !r.verified && 'from another address'].filter(Boolean);
  return doubts.length ? `${r.name} (${doubts.join(', ')})` : r.name;
}

/** Who said whether they come. */
function Replies({ replies }: { replies: NonNullable<SessionDetail['replies']> }) {
  return (
    <Panel title="Who comes" about="By their answers, from a calendar program or from their page.">
      {replies.length === 0 && <Empty>Nobody has answered yet.</Empty>}
      {(['accepted', 'tentative', 'declined'] as const).map((answer) => {
        const names = replies.filter((r) => r.answer === answer).map(nameOfReply);
        return names.length ? (
          <Text key={answer}>
            {names.length} {ANSWER_WORDS[answer]}: {listWords(names)}
          </Text>
        ) : null;
      })}
    </Panel>
  );
}
