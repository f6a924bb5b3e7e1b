import {
  Alert,
  Button,
  FileButton,
  Grid,
  Group,
  ScrollArea,
  Stack,
  Table,
  Text,
  Textarea,
} from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { CourseDetail } from '@nimble-bell/core/api';
import type { RosterPreview } from '@nimble-bell/core/roster';
import { countWords, zoneWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';

/** A class list from a file or a paste: who is new, who is known, which rows are bad and why; then one press. */
export function ImportPanel({ course, done }: { course: CourseDetail; done: () => void }) {
  const ask = useAsk();
  const [text, setText] = useState('');
  const [settled] = useDebouncedValue(text, 250);
  const preview = useQuery({
    queryKey: ['roster-preview', course.id, settled],
    queryFn: () => ask<RosterPreview>(`/courses/${course.id}/members/preview`, 'POST', { text: settled }),
    enabled: settled.trim().length > 0,
    placeholderData: (before) => before,
  });
  const add = useChange(
    () => ask<{ added: number }>(`/courses/${course.id}/members/import`, 'POST', { text }),
    ({ added }) => `${countWords(added, 'person', 'people')} added to the class list.`,
  );
  const shown = text.trim() ? preview.data : undefined;
  const fresh = shown?.fresh.length ?? 0;
  return (
    <Panel
      title="Import a class list"
      about="A heading line, then a line a person: name, e-mail, time zone, and a group if you have them. Any order, commas, semicolons or tabs."
    >
      <Grid gap="lg">
        <Grid.Col span={{ base: 12, md: 5 }}>
          <Stack>
            <Textarea
              label="The list"
              placeholder={
                'Name,E-mail,Time zone\nAdaeze Hollis,adaeze.hollis@saltmarsh.example,Atlantic/Azores'
              }
              rows={11}
              value={text}
              onChange={(e) => setText(e.currentTarget.value)}
              styles={{ input: { fontFamily: 'ui-monospace, monospace', fontSize: 13, whiteSpace: 'pre' } }}
            />
            <Group>
              <FileButton
                accept=".csv,.txt,.tsv,text/csv,text/plain"
                onChange={(file) => void file?.text().then(setText)}
              >
                {(props) => (
                  <Button variant="default" {...props}>
                    Choose a file
                  </Button>
                )}
              </FileButton>
              <Button
                disabled={fresh === 0 || settled !== text}
                loading={add.isPending}
                onClick={() => add.mutate(undefined, { onSuccess: () => (setText(''), done()) })}
              >
                {fresh ? `Add ${countWords(fresh, 'person', 'people')}` : 'Add'}
              </Button>
              <Button variant="subtle" onClick={done}>
                Close
              </Button>
            </Group>
          </Stack>
        </Grid.Col>
        <Grid.Col span={{ base: 12, md: 7 }}>
          {preview.error ? (
            <Alert color="clay">{preview.error.message}</Alert>
          ) : shown ? (
            <Preview answer={shown} />
          ) : (
            <Text c="dimmed" mt="xl">
              Nothing is written before you have seen what it will do.
            </Text>
          )}
        </Grid.Col>
      </Grid>
    </Panel>
  );
}

function Preview({ answer }: { answer: RosterPreview }) {
  if (answer.fault) return <Alert color="clay">{answer.fault}</Alert>;
  return (
    <Stack gap="xs" aria-live="polite">
      <Text fw={600} data-testid="roster-counts">
        {answer.fresh.length} new, {answer.known.length} on the list already,{' '}
        {countWords(answer.bad.length, 'bad row')}
      </Text>
      {answer.bad.length > 0 && (
        <Alert color="clay" variant="light" title="These rows stay out until they are mended">
          <ScrollArea.Autosize mah={150}>
            {answer.bad.map((b) => (
              <Text size="sm" key={b.line}>
                Line {b.line}: {b.reason}{' '}
                <Text span c="dimmed" size="sm">
                  ({b.text})
                </Text>
              </Text>
            ))}
          </ScrollArea.Autosize>
        </Alert>
      )}
      <ScrollArea.Autosize mah={260} viewportProps={{ tabIndex: 0, 'aria-label': 'New people' }}>
        <Table fz="sm">
          <Table.Tbody>
            {answer.fresh.map((r) => (
              <Table.Tr key={r.email}>
                <Table.Td fw={550}>{r.name}</Table.Td>
                <Table.Td>{r.email}</Table.Td>
                <Table.Td>{zoneWords(r.zone)}</Table.Td>
                <Table.Td>{r.group}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </ScrollArea.Autosize>
    </Stack>
  );
}
