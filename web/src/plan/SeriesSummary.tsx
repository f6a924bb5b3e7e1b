import { Anchor, Button, Collapse, Group, Paper, SimpleGrid, Text, Title } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { Link } from 'react-router';
import type { CourseDetail, SeriesInfo, SessionInfo } from '@nimble-bell/core/api';
import {
  countWords,
  durationWords,
  instantWords,
  patternWords,
  sessionsOf,
  zoneWords,
  dateWords,
} from '@nimble-bell/core/calendar';
import { useNow } from '../app/clock';
import { SessionMark } from '../ui/SessionMark';

/** Proves what is in force of a series, without opening the editor. */
export function SeriesSummary(props: {
  course: CourseDetail;
  series: SeriesInfo;
  change: (() => void) | undefined;
}) {
  const { course, series, change } = props;
  const now = useNow(60_000);
  const [shown, { toggle }] = useDisclosure(false);
  const sessions = course.sessions.filter((s) => s.seriesId === series.id);
  const live = sessions.filter((s) => s.state !== 'cancelled');
  const next = live.find((s) => s.endsAt > now);
  const { skipped } = sessionsOf(course.term, series.pattern);
  const minutes = live.reduce((sum, s) => sum + s.minutes, 0);
  return (
    <Paper withBorder p="lg" component="section" aria-label={series.title}>
      <Group justify="space-between" align="flex-start" wrap="nowrap">
        <div>
          <Title order={2} size="h4">
            {series.title}
          </Title>
          <Text>
            {patternWords(series.pattern)}, {zoneWords(course.term.zone)} time
            {series.pattern.lingerMinutes > 0 && `, ${series.pattern.lingerMinutes} min to linger`}
            {series.group && `, group ${series.group} only`}
          </Text>
          <Text size="sm" c="dimmed" className="figures">
            {countWords(live.length, 'session')}, {durationWords(minutes)} in all
            {next && `, next ${instantWords(next.startsAt, course.term.zone)}`}
          </Text>
          {skipped.length > 0 && (
            <Text size="sm" c="dimmed">
              Skipped: {skipped.map((s) => `${dateWords(s.date)} (${s.reason})`).join(', ')}
            </Text>
          )}
        </div>
        <Group wrap="nowrap">
          <Button variant="subtle" onClick={toggle} aria-expanded={shown}>
            {shown ? 'Hide the sessions' : 'Show the sessions'}
          </Button>
          {change && (
            <Button variant="default" onClick={change}>
              Change
            </Button>
          )}
        </Group>
      </Group>
      <Collapse expanded={shown}>
        <SessionList sessions={sessions} course={course} />
      </Collapse>
    </Paper>
  );
}

function SessionList({ sessions, course }: { sessions: SessionInfo[]; course: CourseDetail }) {
  return (
    <SimpleGrid cols={{ base: 1, sm: 2, md: 3 }} spacing={4} mt="md">
      {sessions.map((s) => (
        <Anchor
          key={s.id}
          component={Link}
          to={`/course/${course.id}/session/${s.id}`}
          c="var(--ink)"
          size="sm"
        >
          <Group gap={8}>
            <SessionMark state={s.state} />
            <span className="figures">
              {s.number}. {instantWords(s.startsAt, course.term.zone)}
            </span>
            {s.state !== 'planned' && s.state !== 'held' && <strong>{s.state}</strong>}
          </Group>
        </Anchor>
      ))}
    </SimpleGrid>
  );
}
