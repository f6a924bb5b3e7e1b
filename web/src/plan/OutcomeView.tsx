import { Text } from '@mantine/core';
import type { NamedClash, PlanEditDraft, PlanOutcome, SessionDelta, Told } from '@nimble-bell/core/api';
import { countWords, instantWords, listWords, namesWords } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { LettersAhead } from '../ui/LettersAhead';
import classes from './plan.module.css';

const MOST = 8;

/** What a change does, before it is saved: each session's part, the clashes, who is told. */
export function OutcomeView({ outcome, edit }: { outcome: PlanOutcome; edit: PlanEditDraft | null }) {
  const { zone } = useThisCourse().term;
  const { sessions, told, clashes } = outcome;
  return (
    <div className={classes.outcome} data-testid="outcome">
      <Deltas sessions={sessions} />
      <Clashes clashes={clashes} zone={zone} />
      <ToldView told={told} edit={edit} />
    </div>
  );
}

/** Who is written to, and what: the letters themselves, before anything is saved. */
export function ToldView({ told, edit }: { told: Told[]; edit: PlanEditDraft | null }) {
  const course = useThisCourse();
  if (!told.length) return <Text size="sm">Nobody is written to: none of those invited is touched.</Text>;
  return (
    <>
      <Text size="sm">
        {countWords(told.length, 'person', 'people')} will be told: {namesWords(told.map((t) => t.name))}.
      </Text>
      <Text size="sm" c="dimmed" mb={6}>
        One mail each, with their part alone as an update of their calendar. What you change in the next two
        minutes goes with it.
      </Text>
      <LettersAhead path={`/courses/${course.id}/plan/letters`} body={edit} />
    </>
  );
}

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
  return `${namesWords(c.people.map((p) => p.name))} ${have} ${c.other.course} ${c.other.title}${link}: ${when}, ${countWords(c.minutes, 'minute')} overlap.`;
}
