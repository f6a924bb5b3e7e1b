import { Alert, Button, Checkbox, Group } from '@mantine/core';
import { useState } from 'react';
import { RefusedLines } from '../ui/RefusedLines';
import { dateWords, swapWords, type AcademicYear } from '@nimble-bell/core/calendar';

interface Props {
  year: AcademicYear;
  take: (chosen: Pick<AcademicYear, 'daysOff' | 'daySwaps'>) => void;
  leave: () => void;
}

/** What an academic calendar would add, each to be chosen or left. */
export function AcademicYearPreview({ year, take, leave }: Props) {
  const [left, setLeft] = useState<string[]>([]);
  const toggle = (key: string, on: boolean) => setLeft(on ? left.filter((k) => k !== key) : [...left, key]);
  const offKey = (i: number) => `off${i}`;
  const swapKey = (i: number) => `swap${i}`;
  const off = year.daysOff.filter((_, i) => !left.includes(offKey(i)));
  const swaps = year.daySwaps.filter((_, i) => !left.includes(swapKey(i)));
  return (
    <div role="group" aria-label="Read from the file">
      {year.fault && (
        <Alert color="clay" title="This cannot be read" role="alert">
          {year.fault}
        </Alert>
      )}
      {year.daysOff.map((d, i) => (
        <Checkbox
          key={offKey(i)}
          size="sm"
          mb={4}
          checked={!left.includes(offKey(i))}
          onChange={(e) => toggle(offKey(i), e.currentTarget.checked)}
          label={`${dateWords(d.from)}${d.to > d.from ? ` to ${dateWords(d.to)}` : ''}: ${d.name}`}
        />
      ))}
      {year.daySwaps.map((d, i) => (
        <Checkbox
          key={swapKey(i)}
          size="sm"
          mb={4}
          checked={!left.includes(swapKey(i))}
          onChange={(e) => toggle(swapKey(i), e.currentTarget.checked)}
          label={swapWords(d)}
        />
      ))}
      <RefusedLines lines={year.bad} />
      <Group mt="xs" gap="xs">
        <Button
          size="compact-sm"
          disabled={off.length + swaps.length === 0}
          onClick={() => take({ daysOff: off, daySwaps: swaps })}
        >
          Take {off.length + swaps.length}
        </Button>
        <Button size="compact-sm" variant="default" onClick={leave}>
          Leave them
        </Button>
      </Group>
    </div>
  );
}
