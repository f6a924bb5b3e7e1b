import { Alert, Button, Group, Stack, Text } from '@mantine/core';
import { area, curveStepAfter, scaleLinear } from 'd3';
import type { RecordingSpace, RulesInput } from '@nimble-bell/core/api';
import {
  countWords,
  dayWords,
  durationWords,
  instantWords,
  toEpochDay,
  toLocalDate,
} from '@nimble-bell/core/calendar';
import { spaceAhead, toRecord, type SpaceForecast } from '@nimble-bell/core/recording';
import { useNow } from '../app/clock';
import { useThisCourse } from '../app/course';
import { useAsked } from '../app/queries';
import { useSetRules } from '../limits/useRules';
import classes from './space.module.css';

const [WIDTH, HEIGHT] = [1000, 120];
/** So much longer are kept, by one press, those that go before long. */
const LONGER_DAYS = 60;

const freeWords = ({ free, quota }: RecordingSpace): string =>
  quota === null
    ? `Free on the server: ${gigabytes(free)}.`
    : `Free for this course: ${gigabytes(free)} of ${gigabytes(quota)}.`;

const gigabytes = (bytes: number) => `${(bytes / 1e9).toFixed(bytes < 1e9 ? 2 : 1)} GB`;

/** What the term's recordings will take, by what they took so far, against the space that is free; and what goes before long. */
export function Space() {
  const course = useThisCourse();
  const now = useNow(60_000);
  const { data } = useAsked<RecordingSpace>(`/courses/${course.id}/recording-space`);
  const ahead = toRecord(course.sessions, course.recordingPlan?.automatic ?? true, now);
  const forecast = spaceAhead(ahead, data?.perMinute ?? null, data?.free ?? Infinity);
  const minutes = ahead.reduce((sum, a) => sum + a.minutes, 0);
  return (
    <Stack gap="sm">
      <Text size="sm" c="dimmed" className="figures">
        {countWords(ahead.length, 'session')} ahead, {durationWords(minutes)}: about{' '}
        {gigabytes(forecast.bytes)} if all of it is recorded
        {data?.perMinute ? ', by what this course’s recordings took so far' : ''}.
        {data && ` Kept now: ${gigabytes(data.taken)}. ${freeWords(data)}`}
      </Text>
      {data && forecast.points.length > 1 && (
        <Chart {...{ forecast, free: data.free, zone: course.term.zone }} />
      )}
      {forecast.endsAt !== null && (
        <Alert color="clay" title={`The space ends with ${instantWords(forecast.endsAt, course.term.zone)}`}>
          Keep fewer recordings, or for a shorter time, or ask whoever runs the server for more.
        </Alert>
      )}
      {data?.soon.map((s) => (
        <Soon key={s.day} soon={s} mayPlan={course.role === 'teacher'} />
      ))}
    </Stack>
  );
}

/** What is taken, session by session; the line is what is free. */
function Chart({ forecast, free, zone }: { forecast: SpaceForecast; free: number; zone: string }) {
  const { points, bytes, endsAt } = forecast;
  const most = endsAt === null ? bytes * 1.15 : Math.max(bytes, free) * 1.05;
  const x = scaleLinear([points[0]!.at, points.at(-1)!.at], [0, WIDTH]);
  const y = scaleLinear([0, most], [HEIGHT - 2, 4]);
  const path = area<(typeof points)[number]>()
    .x((p) => x(p.at))
    .y0(HEIGHT - 2)
    .y1((p) => y(p.bytes))
    .curve(curveStepAfter)(points);
  const words = `From ${instantWords(points[0]!.at, zone)} to ${instantWords(points.at(-1)!.at, zone)} recordings grow to ${gigabytes(bytes)}`;
  return (
    <figure className={classes.chart}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`${words}; ${endsAt === null ? 'there is space for all of it' : `the space ends with ${instantWords(endsAt, zone)}`}`}
      >
        <path d={path ?? ''} fill="var(--pine-wash)" stroke="var(--pine)" />
        {endsAt !== null && (
          <line
            x1={0}
            x2={WIDTH}
            y1={y(free)}
            y2={y(free)}
            stroke="var(--clay)"
            strokeWidth={2}
            strokeDasharray="8 5"
          />
        )}
      </svg>
      <figcaption>
        <span>{instantWords(points[0]!.at, zone)}</span>
        <span>{endsAt === null ? 'There is space for all of it.' : 'The broken line is what is free.'}</span>
        <span>{instantWords(points.at(-1)!.at, zone)}</span>
      </figcaption>
    </figure>
  );
}

/** Recordings that go before long, and one press to keep them. */
function Soon({
  soon: { day, sessions },
  mayPlan,
}: {
  soon: RecordingSpace['soon'][number];
  mayPlan: boolean;
}) {
  const longer = toLocalDate(toEpochDay(day) + LONGER_DAYS);
  const set = useSetRules(`Kept until ${dayWords(longer)}.`);
  const input: RulesInput = { at: { layer: 'session', ids: sessions }, recording: { keepUntil: longer } };
  return (
    <Alert color="brass" title={`${countWords(sessions.length, 'recording')} kept until ${dayWords(day)}`}>
      <Group justify="space-between">
        <Text size="sm">Afterwards {sessions.length === 1 ? 'it is' : 'they are'} gone for everyone.</Text>
        {mayPlan && (
          <Button size="xs" loading={set.isPending} onClick={() => set.mutate(input)}>
            Keep until {dayWords(longer)}
          </Button>
        )}
      </Group>
    </Alert>
  );
}
