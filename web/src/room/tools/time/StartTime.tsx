import { Button, Group, NumberInput, Stack, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useRoom } from '../../live/useRoom';
import classes from './time.module.css';

const PRESETS = [1, 2, 3, 5, 10, 15];
const LONGEST_MINUTES = 240;

/** A time for everybody: one of the usual ones by one press, any other, or counted up. */
export default function StartTime({ close }: { close: () => void }) {
  const { send } = useRoom();
  const [what, setWhat] = useState('');
  const [minutes, setMinutes] = useState<number | null>(null);
  const start = (seconds: number | null) => {
    close();
    void send({ type: 'startTimer', seconds, ...(what.trim() ? { what: what.trim() } : {}) });
  };
  const fits = minutes !== null && minutes >= 0.1 && minutes <= LONGEST_MINUTES;
  return (
    <Stack gap="sm">
      <div className={classes.presets}>
        {PRESETS.map((m, i) => (
          <Button key={m} size="compact-md" variant="light" onClick={() => start(m * 60)} autoFocus={i === 0}>
            {m} min
          </Button>
        ))}
      </div>
      <TextInput
        label="What for"
        placeholder="Work in pairs"
        maxLength={60}
        value={what}
        onChange={(e) => setWhat(e.currentTarget.value)}
      />
      <Group align="flex-end" gap="xs" wrap="nowrap">
        <NumberInput
          label="Another length, minutes"
          min={0.1}
          max={LONGEST_MINUTES}
          decimalScale={1}
          value={minutes ?? ''}
          onChange={(v) => setMinutes(typeof v === 'number' ? v : null)}
        />
        <Button
          variant="default"
          disabled={!fits}
          onClick={() => start(Math.max(5, Math.round((minutes ?? 0) * 60)))}
        >
          Start
        </Button>
      </Group>
      <Button variant="subtle" size="compact-sm" onClick={() => start(null)}>
        Count up from now
      </Button>
    </Stack>
  );
}
