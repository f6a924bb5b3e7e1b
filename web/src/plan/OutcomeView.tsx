import { Text } from '@mantine/core';
import type { NamedClash, PlanOutcome, SessionDelta } from '@nimble-bell/core/api';
import { countWords, instantWords, listWords } from '@nimble-bell/core/calendar';
import classes from './plan.module.css';

const MOST = 8;

/** What a change does, before it is saved: each session's part, the clashes, who is told. */
export function OutcomeView({ outcome, zone }: { outcome: PlanOutcome; zone: string }) {
  const { sessions, told, clashes } = outcome;
  return (
    <div className={classes.outcome} data-testid="outcome">
      <Deltas sessions={sessions} />
      <Clashes clashes={clashes} zone={zone} />
      <Text size="sm">
        {told.count === 0
          ? 'Nobody is written to: none of those invited is touched.'
          : `${countWords(told.count, 'person', 'people')} will be told: ${namesOf(told.names)}.`}
      </Text>
    </div>
  );
}

const namesOf = (names: string[]) =>
  listWords(names.length > 4 ? [...names.slice(0, 3), `${names.length - 3} more`] : names);

export function Deltas({ sessions, most = MOST }: { sessions: SessionDelta[]; most?: number }) {
  if (!sessions.length) return <Text size="sm">No session changes its time.</Text>;
  return (
    <div>
      <Text size="sm" fw={600}>
        {countWords(sessions.length, 'session')} {sessions.length === 1 ? 'changes' : 'change'}
      </Text>
      <ul className={classes.deltas}>
        {sessions.slice(0, most).map((s) => (
          <li key={s.sessionId}>
            {s.title}: {s.words}
          </li>
        ))}
        {sessions.length > most && <li>and {sessions.length - most} more</li>}
      </ul>
    </div>
  );
}

export function Clashes({ clashes, zone }: { clashes: NamedClash[]; zone: string }) {
  if (!clashes.length) return null;
  return (
    <div className={classes.clashes} role="status" data-testid="clashes">
      <Text size="sm" fw={600}>
        {countWords(clashes.length, 'clash', 'clashes')}
      </Text>
      {clashes.slice(0, 5).map((c) => (
        <Text size="sm" key={`${c.sessionId}${c.other.course}${c.other.title}${c.other.startsAt}`}>
          {instantWords(c.startsAt, zone)}: {namesOf(c.people.map((p) => p.name))}{' '}
          {c.people.length === 1 ? 'has' : 'have'} {c.other.course} {c.other.title}
          {c.oneLink ? ' behind the same link' : ''}, {countWords(c.minutes, 'minute')} overlap.
        </Text>
      ))}
      {clashes.length > 5 && <Text size="sm">and {clashes.length - 5} more.</Text>}
    </div>
  );
}
