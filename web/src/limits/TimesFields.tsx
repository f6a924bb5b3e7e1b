import { Group, NativeSelect, Stack, Text } from '@mantine/core';
import { AROUND_WORDS, HOURS, WRITING_ROWS, type Around, type WritingTime } from '@nimble-bell/core/writing';

interface TimesFieldsProps {
  /** As it is here; undefined where nothing is said. */
  value: (key: WritingTime) => number | Around | undefined;
  /** What stands for nothing said: "As the college". */
  nothing: string;
  /** Null where it is only read. */
  set: ((key: WritingTime, value: number | Around | null) => void) | null;
  /** Beside each: where it is from. */
  from?: (key: WritingTime) => string;
}

const CHOICES = {
  hours: HOURS.map(({ hours, words }) => ({ value: String(hours), label: words })),
  around: Object.entries(AROUND_WORDS).map(([value, label]) => ({ value, label })),
};
const inHours = (key: WritingTime) => key === 'aheadHours' || key === 'afterHours';

/** Writing at other times than in class, each to be set. */
export const TimesFields = ({ value, nothing, set, from }: TimesFieldsProps) => (
  <Stack gap={6} maw={620}>
    {WRITING_ROWS.map(({ key, label }) => {
      const hours = inHours(key);
      const known = value(key);
      const choices = hours ? CHOICES.hours : CHOICES.around;
      const other =
        known !== undefined && !choices.some((c) => c.value === String(known))
          ? [{ value: String(known), label: `${known} hours` }]
          : [];
      return (
        <Group key={key} justify="space-between" wrap="nowrap">
          <Text size="sm">
            {label}
            {from && (
              <Text span size="sm" c="dimmed">
                {' '}
                {from(key)}
              </Text>
            )}
          </Text>
          <NativeSelect
            aria-label={`Writing ${label.toLowerCase()}`}
            w={230}
            disabled={!set}
            value={known === undefined ? '' : String(known)}
            onChange={({ currentTarget: { value: v } }) =>
              set?.(key, v === '' ? null : hours ? Number(v) : (v as Around))
            }
            data={[{ value: '', label: nothing }, ...other, ...choices]}
          />
        </Group>
      );
    })}
  </Stack>
);
