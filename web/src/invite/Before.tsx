import { Group, NumberInput, Select, Text } from '@mantine/core';
import { useState } from 'react';
import { countWords } from '@nimble-bell/core/calendar';

const UNITS: Record<string, number> = { minutes: 1, hours: 60, days: 1440 };

/** Minutes as they are said: whole days and hours where they are. */
export const beforeWords = (minutes: number): string =>
  minutes % 1440 === 0
    ? countWords(minutes / 1440, 'day')
    : minutes % 60 === 0
      ? countWords(minutes / 60, 'hour')
      : countWords(minutes, 'minute');

/** A while before a session, as a number and its unit. Gives minutes; none where nothing sensible is typed. */
export function Before({ label, change }: { label: string; change: (minutes: number | null) => void }) {
  const [amount, setAmount] = useState<number | string>(1);
  const [unit, setUnit] = useState('days');
  const set = (n: number | string, u: string) => {
    setAmount(n);
    setUnit(u);
    const minutes = Number(n) * UNITS[u]!;
    change(minutes >= 1 && Number.isInteger(minutes) ? minutes : null);
  };
  return (
    <Group align="flex-end" gap="xs">
      <NumberInput label={label} w={100} min={1} value={amount} onChange={(v) => set(v, unit)} />
      <Select
        aria-label="Unit"
        w={110}
        allowDeselect={false}
        data={Object.keys(UNITS)}
        value={unit}
        onChange={(v) => set(amount, v!)}
      />
      <Text pb={7}>before</Text>
    </Group>
  );
}

/** What it begins with: a day. */
export const DAY_BEFORE = 1440;
