import { Box, Button, Collapse, Group, Paper, Text, Title } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import {
  isStanding,
  type CourseDetail,
  type PlanOutcome,
  type SeriesInfo,
  type SessionInfo,
} from '@nimble-bell/core/api';
import {
  countWords,
  durationWords,
  instantWords,
  scheduleWords,
  periodsFor,
  sessionsOf,
  zoneWords,
  dateWords,
} from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useNow } from '../app/clock';
import { useChange } from '../app/queries';
import { ListedSwitch } from '../ui/ListedSwitch';
import { Findings } from '../ui/Findings';
import { Tag } from '../ui/Tag';
import { SessionList } from './SessionList';

interface Props {
  course: CourseDetail;
  series: SeriesInfo;
  change: (() => void) | undefined;
}

/** Proves what is in force of a series, without opening the editor. */
export function SeriesSummary({ course, series, change }: Props) {
  const found = useId();
  const [shown, { toggle }] = useDisclosure(false);
  const findings = course.findings.filter((f) => f.series === series.id && f.stage === 'plan');
  return (
    <Paper
      withBorder
      p="lg"
      component="section"
      aria-label={series.title}
      aria-describedby={findings.length ? found : undefined}
    >
      <Group justify="space-between" align="flex-start" mb={findings.length ? 'sm' : 0}>
        <div style={{ flex: '1 1 260px', minWidth: 0 }}>
          <Group gap="xs">
            <Title order={2} size="h4">
              {series.title}
            </Title>
            {series.publishedAt === null && <Tag>draft</Tag>}
            {series.listed && <Tag>listed</Tag>}
          </Group>
          {series.pattern ? (
            <Dated course={course} series={series} />
          ) : (
            <Standing course={course} series={series} />
          )}
        </div>
        <Group gap="xs">
          {!isStanding(series.kind) && (
            <Button variant="subtle" onClick={toggle} aria-expanded={shown}>
              {shown ? 'Hide the sessions' : 'Show the sessions'}
            </Button>
          )}
          {change && (
            <Button variant="default" onClick={change}>
              Change
            </Button>
          )}
          {change && <RemoveSeries course={course} series={series} />}
        </Group>
      </Group>
      <Findings id={found} course={course} findings={findings} />
      <Collapse expanded={shown}>
        {shown && (
          <>
            <SessionList course={course} series={series} />
            {change && (
              <Box mt="sm">
                <ListedSwitch path={`/courses/${course.id}/series/${series.id}`} listed={series.listed} />
              </Box>
            )}
          </>
        )}
      </Collapse>
    </Paper>
  );
}

/** What paper says of a session beside its time. */
const onPaper = (state: SessionInfo['state']) =>
  state === 'moved' || state === 'cancelled' ? ` (${state})` : '';

const KIND_WORDS = { class: '', group: '', office: 'Drop in at any time: ', open: '', capture: '' };

function Dated({ course, series }: { course: CourseDetail; series: SeriesInfo }) {
  const now = useNow(60_000);
  const pattern = series.pattern!;
  const periods = periodsFor(pattern, course.bellTimes);
  const sessions = course.sessions.filter((s) => s.seriesId === series.id);
  const live = sessions.filter((s) => s.state !== 'cancelled');
  const next = live.find((s) => s.endsAt > now);
  const { skipped } = sessionsOf(course.term, pattern, undefined, periods);
  const minutes = live.reduce((sum, s) => sum + s.minutes, 0);
  const leads = course.teachers.filter((t) => series.leads.includes(t.id)).map((t) => t.name);
  return (
    <>
      <Text>
        {KIND_WORDS[series.kind]}
        {scheduleWords(pattern, periods, sessions, course.term.zone)}, {zoneWords(course.term.zone)} time
        {pattern.lingerMinutes > 0 && `, ${pattern.lingerMinutes} min to linger`}
        {series.group && `, group ${series.group} only`}
        {leads.length > 0 && `, led by ${leads.join(' and ')}`}
      </Text>
      <Text size="sm" c="dimmed" className="figures">
        {countWords(live.length, 'session')}
        {series.expected !== null && ` of ${series.expected} expected`}, {durationWords(minutes)} in all
        {next && `, next ${instantWords(next.startsAt, course.term.zone)}`}
      </Text>
      <p className="on-paper">
        {sessions.map((s) => `${instantWords(s.startsAt, course.term.zone)}${onPaper(s.state)}`).join('; ')}
      </p>
      {skipped.length > 0 && (
        <Text size="sm" c="dimmed">
          Skipped: {skipped.map((s) => `${dateWords(s.date)} (${s.reason})`).join(', ')}
        </Text>
      )}
    </>
  );
}

/** A room without dates, or the captures recorded alone. */
function Standing({ course, series }: { course: CourseDetail; series: SeriesInfo }) {
  const ask = useAsk();
  const room = course.standing.find((s) => s.seriesId === series.id);
  const held = course.sessions.filter((s) => s.seriesId === series.id && s.state === 'held');
  const post = useChange(({ id, posted }: { id: string; posted: boolean }) =>
    ask(`/sessions/${id}/posted`, 'PUT', { posted }),
  );
  return (
    <>
      <Text>
        {series.kind === 'open'
          ? `Open for the class all term, behind the same links`
          : 'Recorded by a teacher alone, seen by students once posted'}
      </Text>
      <Group gap="sm" mt="xs">
        {room && (
          <Button component={Link} to={`/room/${room.id}`} size="compact-sm">
            {room.state === 'live' ? 'Go back in' : series.kind === 'open' ? 'Open the room' : 'Record now'}
          </Button>
        )}
        {held.length > 0 && (
          <Text size="sm" c="dimmed">
            {countWords(held.length, 'time', 'times')} so far
          </Text>
        )}
      </Group>
      {series.kind === 'capture' &&
        held.map((s) => (
          <Group key={s.id} gap="sm" mt={4}>
            <Text size="sm" className="figures">
              {instantWords(s.startsAt, course.term.zone)}, {durationWords(s.minutes)}
            </Text>
            <Button
              component={Link}
              to={`/course/${course.id}/session/${s.id}`}
              variant="subtle"
              size="compact-sm"
            >
              Watch it
            </Button>
            <Button
              variant="default"
              size="compact-sm"
              loading={post.isPending}
              onClick={() => post.mutate({ id: s.id, posted: !s.published })}
            >
              {s.published ? 'Take it back' : 'Post to the class'}
            </Button>
          </Group>
        ))}
    </>
  );
}

/** A plain question before a series goes; what was taught stays. */
function RemoveSeries({ course, series }: { course: CourseDetail; series: SeriesInfo }) {
  const ask = useAsk();
  const [asking, setAsking] = useState(false);
  const taught = course.sessions.some(
    (s) => s.seriesId === series.id && (s.state === 'held' || s.state === 'live'),
  );
  const remove = useChange(
    () => ask<PlanOutcome>(`/courses/${course.id}/plan`, 'POST', { edit: 'remove-series', id: series.id }),
    ({ words }) => `${words}. Undo brings it back.`,
  );
  if (taught) return null;
  if (!asking)
    return (
      <Button variant="subtle" color="clay" onClick={() => setAsking(true)}>
        Remove
      </Button>
    );
  return (
    <Group gap={4} wrap="nowrap" role="alertdialog" aria-label={`Remove ${series.title}?`}>
      <Button color="clay" loading={remove.isPending} onClick={() => remove.mutate(undefined)}>
        Remove {series.title}
      </Button>
      <Button variant="default" onClick={() => setAsking(false)} autoFocus>
        Keep
      </Button>
    </Group>
  );
}
