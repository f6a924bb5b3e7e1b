import { Anchor, Button, Group, Table } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { CourseDetail, SeriesInfo, SessionInfo } from '@nimble-bell/core/api';
import { countWords, durationWords, instantWords, listWords, type Own } from '@nimble-bell/core/calendar';
import { useNow } from '../app/clock';
import { Heads } from '../ui/Heads';
import { SessionMark } from '../ui/SessionMark';
import { AddSession } from './AddSession';
import { ChangePanel } from './ChangePanel';
import classes from './plan.module.css';

const OWN_WORDS: Record<Own, string> = {
  time: 'a time of its own',
  length: 'a length of its own',
  title: 'a name of its own',
  added: 'added by hand',
};

/** The sessions of a series, what each has of its own, and the way to change one or many. */
export function SessionList({ course, series }: { course: CourseDetail; series: SeriesInfo }) {
  const [changing, setChanging] = useState<SessionInfo | null>(null);
  const [adding, setAdding] = useState(false);
  const [past, setPast] = useState(false);
  const now = useNow(60_000);
  const sessions = course.sessions.filter((s) => s.seriesId === series.id);
  // What is over waits behind one press, but for what is still to be made up.
  const open = sessions.filter((s) => s.endsAt > now || s.state === 'live' || isOwed(s, course));
  const shown = past ? sessions : open;
  const mayPlan = course.role === 'teacher';
  return (
    <div className={classes.sessions}>
      {sessions.length > open.length && (
        <Anchor
          component="button"
          type="button"
          size="sm"
          onClick={() => setPast(!past)}
          aria-expanded={past}
        >
          {past
            ? 'Hide what is over'
            : `Show ${countWords(sessions.length - open.length, 'session')} that are over`}
        </Anchor>
      )}
      <Table fz="sm" verticalSpacing={3}>
        <Heads quiet of={['State', 'Number', 'When', 'Length', 'What it is', 'Change it']} />
        <Table.Tbody>
          {shown.map((s) => (
            <SessionLine
              key={s.id}
              course={course}
              session={s}
              change={mayPlan ? () => setChanging(s) : undefined}
            />
          ))}
        </Table.Tbody>
      </Table>
      {mayPlan && (
        <Button variant="default" size="compact-sm" mt="sm" onClick={() => setAdding(true)}>
          Add a session
        </Button>
      )}
      {changing && <ChangePanel course={course} session={changing} close={() => setChanging(null)} />}
      {adding && <AddSession course={course} series={series} close={() => setAdding(false)} />}
    </div>
  );
}

const isOwed = (s: SessionInfo, course: CourseDetail) =>
  s.state === 'cancelled' && !course.sessions.some((x) => x.replaces === s.id);

function SessionLine(props: {
  course: CourseDetail;
  session: SessionInfo;
  change: (() => void) | undefined;
}) {
  const { course, session, change } = props;
  const now = useNow(60_000);
  const { zone } = course.term;
  const over = session.state === 'held' || session.state === 'live';
  const words = wordsOf(session);
  return (
    <Table.Tr data-testid="session-line">
      <Table.Td w={28}>
        <SessionMark state={session.state} />
      </Table.Td>
      <Table.Td className="figures" w={36}>
        {session.number}
      </Table.Td>
      <Table.Td className="figures" w={170}>
        <Anchor component={Link} to={`/course/${course.id}/session/${session.id}`} c="var(--ink)" size="sm">
          {instantWords(session.startsAt, zone)}
        </Anchor>
      </Table.Td>
      <Table.Td w={110}>{durationWords(session.minutes)}</Table.Td>
      <Table.Td>
        {session.title && <strong>{session.title}</strong>} {listWords(words)}
      </Table.Td>
      <Table.Td ta="right">
        <Group gap={4} justify="flex-end" wrap="nowrap">
          {session.state === 'cancelled' && change && (
            <Button
              component={Link}
              to={`/course/${course.id}/plan/make-up/${session.id}`}
              variant="subtle"
              size="compact-sm"
            >
              Make it up
            </Button>
          )}
          {change && (!over || session.state === 'held') && (
            <Button
              variant="subtle"
              size="compact-sm"
              onClick={change}
              aria-label={`Change the session of ${instantWords(session.startsAt, zone)}`}
              disabled={session.endsAt < now - 400 * 86_400_000}
            >
              Change
            </Button>
          )}
        </Group>
      </Table.Td>
    </Table.Tr>
  );
}

/** What is particular to a session. */
function wordsOf(session: SessionInfo) {
  const own = session.own.filter((o) => o !== 'title').map((o) => OWN_WORDS[o]);
  const words = [
    ...(session.state === 'planned' || session.state === 'held' || session.state === 'moved'
      ? []
      : [session.reason ? `${session.state}: ${session.reason}` : session.state]),
    ...own,
    ...(session.replaces ? ['a make-up'] : []),
    ...(session.record === false ? ['not recorded'] : []),
  ];
  return words;
}
