import { Button, Group, Pill, Stack, Title } from '@mantine/core';
import { useState } from 'react';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';
import { Before, beforeWords, DAY_BEFORE } from './Before';

/** When those who were invited are reminded of each of their sessions. */
export function RemindersPage() {
  const course = useThisCourse();
  const ask = useAsk();
  const [minutes, setMinutes] = useState<number | null>(DAY_BEFORE);
  const save = useChange(
    (all: number[]) => ask(`/courses/${course.id}/reminders`, 'PUT', { minutes: all }),
    () => 'The reminders are kept.',
  );
  const { reminders } = course;
  const mayPlan = course.role === 'teacher';
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
            <Before label="Remind them" change={setMinutes} />
            <Button
              variant="default"
              loading={save.isPending}
              disabled={minutes === null || reminders.includes(minutes) || reminders.length >= 5}
              onClick={() => save.mutate([...reminders, minutes!])}
            >
              Add this reminder
            </Button>
          </Group>
        )}
      </Panel>
    </Stack>
  );
}
