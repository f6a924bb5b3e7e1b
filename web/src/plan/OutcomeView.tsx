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
      {told.count > 0 && (
        <Text size="sm" c="dimmed">
          One mail each, with their part alone as an update of their calendar. What you change in the next two
          minutes goes with it.
        </Text>
      )}
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

/** Clashes with the same other series and people are said once, with their dates. */
export function Clashes({ clashes, zone }: { clashes: NamedClash[]; zone: string }) {
  if (!clashes.length) return null;
  const groups = new Map<string, NamedClash[]>();
  for (const c of clashes) {
    const key = `${c.seriesTitle}/${c.other.course}/${c.other.title}/${c.minutes}/${c.people.map((p) => p.name).join()}`;
    groups.set(key, [...(groups.get(key) ?? []), c]);
  }
  return (
    <div className={classes.clashes} role="status" data-testid="clashes">
      <Text size="sm" fw={600}>
        {countWords(clashes.length, 'clash', 'clashes')}
      </Text>
      {[...groups].slice(0, 5).map(([key, all]) => (
        <Text size="sm" key={key}>
          {clashWords(all, zone)}
        </Text>
      ))}
      {groups.size > 5 && <Text size="sm">and {groups.size - 5} more.</Text>}
    </div>
  );
}

function clashWords(all: NamedClash[], zone: string): string {
  const [c] = all as [NamedClash];
  const dates = all.slice(0, 3).map((x) => instantWords(x.startsAt, zone));
  const when = listWords(all.length > 3 ? [...dates, `${all.length - 3} more`] : dates);
  const have = c.people.length === 1 ? 'has' : 'have';
  const link = c.oneLink ? ' behind the same link' : '';
  return `${namesOf(c.people.map((p) => p.name))} ${have} ${c.other.course} ${c.other.title}${link}: ${when}, ${countWords(c.minutes, 'minute')} overlap.`;
}
