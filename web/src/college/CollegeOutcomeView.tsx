import { Button, Group, Text } from '@mantine/core';
import type { CollegeOutcome } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { LettersAhead } from '../ui/LettersAhead';
import { Deltas } from '../plan/OutcomeView';
import classes from './college.module.css';

interface Props {
  outcome: CollegeOutcome;
  /** Where the letters are asked for, and with what. */
  letters: { path: string; body: unknown };
  busy: boolean;
  save: () => void;
  back: () => void;
}

/** Which sessions of which courses a change of the term or the bell times moves, before it moves them. */
export function CollegeOutcomeView({ outcome, letters, busy, save, back }: Props) {
  const told = outcome.courses.reduce((sum, c) => sum + c.told.length, 0);
  return (
    <div className={classes.outcome} role="alertdialog" aria-label="What this moves">
      {outcome.courses.map((c) => (
        <div key={c.code}>
          <Text fw={600}>
            {c.code} {c.title}
          </Text>
          <Deltas sessions={c.sessions} most={5} />
        </div>
      ))}
      {told > 0 && <LettersAhead {...letters} />}
      <Group mt="sm">
        <Button onClick={save} loading={busy}>
          {told ? `Save and tell ${countWords(told, 'person', 'people')}` : 'Save'}
        </Button>
        <Button variant="default" onClick={back} autoFocus>
          Back
        </Button>
      </Group>
    </div>
  );
}
