import { Text } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { memo, useMemo } from 'react';
import type { CourseDetail, PlanEditDraft, PlanOutcome } from '@nimble-bell/core/api';
import {
  countWords,
  dateWords,
  durationWords,
  endClock,
  sameSkips,
  type PlannedSeries,
} from '@nimble-bell/core/calendar';
import { Clashes, ToldView } from './OutcomeView';
import classes from './plan.module.css';

interface Props {
  planned: PlannedSeries | null;
  course: CourseDetail;
  expected: number | '';
  /** The server's word on it: clashes, who is told. */
  outcome?: PlanOutcome | null;
  edit?: PlanEditDraft | null;
  fault?: Error | null;
}

/** What the pattern comes to: count, hours, skipped dates, and every date by teaching week. */
export const LiveDates = memo(function LiveDates({ planned, course, expected, outcome, edit, fault }: Props) {
  if (!planned)
    return (
      <div className={classes.sheet}>
        <p className={classes.quiet}>
          Say when it meets. The dates it gives in {course.term.name} appear here and on the ribbon above.
        </p>
      </div>
    );
  const { sessions, skipped } = planned;
  return (
    <section className={classes.sheet} aria-label="The dates" aria-live="polite">
      <div className={classes.total}>
        <span>
          <strong data-testid="session-count">{sessions.length}</strong>{' '}
          {sessions.length === 1 ? 'session' : 'sessions'}
        </span>
        <span>
          <strong>{durationWords(planned.minutes)}</strong> of teaching
        </span>
      </div>
      <Check planned={planned} expected={expected} />
      {fault && (
        <Text size="sm" c="var(--clay)" role="status">
          {fault.message}
        </Text>
      )}
      {outcome && <Clashes clashes={outcome.clashes} zone={course.term.zone} />}
      {edit && outcome && outcome.told.length > 0 && <ToldView told={outcome.told} edit={edit} />}
      <Skipped skipped={skipped} />
      <Dates sessions={sessions} />
    </section>
  );
});

type SkippedDates = PlannedSeries['skipped'];

/** What is skipped: the same for most keys, and then not drawn again. */
const Skipped = memo(
  function Skipped({ skipped }: { skipped: SkippedDates }) {
    if (!skipped.length) return null;
    return (
      <div className={classes.skipped} data-testid="skipped">
        <Text size="sm" fw={600}>
          {countWords(skipped.length, 'date')} skipped
        </Text>
        {skipped.map((s) => (
          <div key={s.date}>
            <time>{dateWords(s.date)}</time>: {s.reason}
          </div>
        ))}
      </div>
    );
  },
  (a, b) => sameSkips(a.skipped, b.skipped),
);

/** As many dates as can be in sight without scrolling. */
const DATES_IN_SIGHT = 32;
const QUIET_MS = 250;

type Sessions = PlannedSeries['sessions'];

/** The sessions of one week after the other. */
function byWeek(sessions: Sessions): Sessions[] {
  const weeks: Sessions[] = [];
  for (const [i, session] of sessions.entries()) {
    if (i > 0 && session.week === sessions[i - 1]!.week) weeks.at(-1)!.push(session);
    else weeks.push([session]);
  }
  return weeks;
}

/** How many of the dates are in sight: whole weeks. */
function inSight(sessions: Sessions): number {
  let count = Math.min(DATES_IN_SIGHT, sessions.length);
  while (count < sessions.length && sessions[count]!.week === sessions[count - 1]!.week) count++;
  return count;
}

/** Its dates in one line that breaks between them. */
const weekWords = (sessions: Sessions): string =>
  sessions
    .map((s) => `${dateWords(s.date)} ${s.start}–${endClock(s)}`.replaceAll(' ', '\u00A0'))
    .join('\u2003 ');

/** Every date, by its week. The weeks in sight follow each key; the others when one has stopped typing. */
const Dates = memo(function Dates({ sessions }: { sessions: Sessions }) {
  const seen = inSight(sessions);
  return (
    <div
      className={classes.dates}
      data-long={seen < sessions.length || undefined}
      tabIndex={0}
      aria-label="Dates by teaching week"
      role="region"
    >
      <Weeks sessions={sessions.slice(0, seen)} />
      <Rest sessions={sessions} />
    </div>
  );
});

const Weeks = memo(function Weeks({ sessions }: { sessions: Sessions }) {
  return byWeek(sessions).map((those, i) => {
    const { week } = those[0]!;
    return <Week key={i} name={week === null ? 'Break' : `Week ${week}`} dates={weekWords(those)} />;
  });
});

function Rest({ sessions }: { sessions: Sessions }) {
  const [quiet] = useDebouncedValue(sessions, QUIET_MS);
  const rest = useMemo(() => quiet.slice(inSight(quiet)), [quiet]);
  return <Weeks sessions={rest} />;
}

/** A row whose words stay is not drawn again. */
const Week = memo(function Week({ name, dates }: { name: string; dates: string }) {
  return (
    <div className={classes.weekRow}>
      <span className={classes.weekName}>{name}</span>
      <span className={classes.weekDates}>{dates}</span>
    </div>
  );
});

/** The dates against what the teacher expects, in words. */
function Check({ planned, expected }: { planned: PlannedSeries; expected: number | '' }) {
  const { sessions, skipped, missing, missingMinutes } = planned;
  const why = skipped[0] ? `: ${dateWords(skipped[0].date)} is ${skipped[0].reason}` : '';
  if (missing > 0)
    return (
      <Text size="sm" c="var(--clay)" fw={600}>
        {countWords(missing, 'session')} more than the term has room for.
      </Text>
    );
  if (missingMinutes > 0)
    return (
      <Text size="sm" c="var(--clay)" fw={600}>
        The term ends {durationWords(missingMinutes)} short of those hours.
      </Text>
    );
  if (expected === '') return null;
  if (expected === sessions.length)
    return (
      <Text size="sm" c="var(--pine)" fw={600}>
        As many as you expect.
      </Text>
    );
  return (
    <Text size="sm" c="var(--clay)" fw={600}>
      {countWords(Number(expected), 'session')} expected, {sessions.length} fit{why}.
    </Text>
  );
}
