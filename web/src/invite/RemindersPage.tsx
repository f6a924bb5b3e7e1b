import { Button, Group, NumberInput, Pill, Select, Stack, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';

const UNITS: Record<string, number> = { minutes: 1, hours: 60, days: 1440 };

const beforeWords = (minutes: number): string =>
  minutes % 1440 === 0
    ? countWords(minutes / 1440, 'day')
    : minutes % 60 === 0
      ? countWords(minutes / 60, 'hour')
      : countWords(minutes, 'minute');

/** When those who were invited are reminded of each of their sessions. */
export function RemindersPage() {
  const course = useThisCourse();
  const ask = useAsk();
  const [amount, setAmount] = useState<number | string>(1);
  const [unit, setUnit] = useState('days');
  const save = useChange(
    (minutes: number[]) => ask(`/courses/${course.id}/reminders`, 'PUT', { minutes }),
    () => 'The reminders are kept.',
  );
  const { reminders } = course;
  const mayPlan = course.role === 'teacher';
  const minutes = Number(amount) * UNITS[unit]!;
  return (
    <Stack>
      <Title order={1} size="h2">
        Reminders
      </Title>
      <Panel
        title="Before each session"
        about="By mail to those invited whom the session is for, in their own time, with their link. A session that is moved or cancelled is not reminded of at its old time."
      >
        {reminders.length === 0 && <Empty>Nobody is reminded.</Empty>}
        <Group gap="xs" mb="md">
          {[...reminders]
            .sort((a, b) => b - a)
            .map((m) => (
              <Pill
                key={m}
                size="md"
                withRemoveButton={mayPlan}
                removeButtonProps={{
                  'aria-label': `No reminder ${beforeWords(m)} before`,
                  tabIndex: 0,
                  'aria-hidden': false,
                }}
                onRemove={() => save.mutate(reminders.filter((r) => r !== m))}
              >
                {beforeWords(m)} before
              </Pill>
            ))}
        </Group>
        {mayPlan && (
          <Group align="flex-end">
            <NumberInput label="Remind them" w={100} min={1} value={amount} onChange={setAmount} />
            <Select
              aria-label="Unit"
              w={110}
              allowDeselect={false}
              data={Object.keys(UNITS)}
              value={unit}
              onChange={(v) => setUnit(v!)}
            />
            <Text pb={7}>before</Text>
            <Button
              variant="default"
              loading={save.isPending}
              disabled={!(minutes >= 1) || reminders.includes(minutes) || reminders.length >= 5}
              onClick={() => save.mutate([...reminders, minutes])}
            >
              Add this reminder
            </Button>
          </Group>
        )}
      </Panel>
    </Stack>
  );
}
