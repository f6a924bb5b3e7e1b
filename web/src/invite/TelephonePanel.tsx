import { Button, Group, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Told } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { LettersAhead } from '../ui/LettersAhead';
import { Panel } from '../ui/Panel';

/** The number that people of a course can call. Each has a PIN of their own on it. */
export function TelephonePanel() {
  const course = useThisCourse();
  const ask = useAsk();
  const path = `/courses/${course.id}/telephone`;
  const [typed, setTyped] = useState(course.telephone ?? '');
  const number = typed.trim() || null;
  const save = useChange(
    (n: string | null) => ask<{ told: Told[] }>(path, 'PUT', { number: n }),
    ({ told }, n) =>
      `${n ? `${n} is the line.` : 'There is no line any more.'}${told.length ? ` ${countWords(told.length, 'person', 'people')} will be told.` : ''}`,
  );
  const changed = number !== course.telephone;
  return (
    <Panel
      title="By telephone"
      about="The line stands in invitations, calendar entries and on each person's page, with a PIN that says who is calling."
    >
      <Stack gap="xs">
        <form
          onSubmit={(e) => {
            e.preventDefault();
            save.mutate(number);
          }}
        >
          <Group align="flex-end">
            <TextInput
              label="Number of the line"
              type="tel"
              placeholder="None"
              maxLength={30}
              w={240}
              value={typed}
              error={save.error?.message}
              onChange={(e) => setTyped(e.currentTarget.value)}
            />
            <Button type="submit" variant="default" disabled={!changed} loading={save.isPending}>
              {number || !course.telephone ? 'Keep this number' : 'Take the line away'}
            </Button>
          </Group>
        </form>
        {changed && course.counts.invited > 0 && (
          <>
            <Text size="sm">Those invited are told, and their calendar entries brought up to date.</Text>
            <LettersAhead path={`${path}/letters`} body={{ number }} />
          </>
        )}
      </Stack>
    </Panel>
  );
}
