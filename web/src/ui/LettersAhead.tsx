import { Accordion, Alert, Box, Button, Loader, Text } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { LetterAhead } from '@nimble-bell/core/api';
import { countWords, instantWords, namesWords, zoneWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { serverNow } from '../app/clock';
import { LetterPaper } from './LetterPaper';

const MOST = 12;
const SOON_MS = 10 * 60_000;

interface Props {
  path: string;
  /** What the change is, as it is sent; worked out when it is asked for where that takes time. */
  body: unknown;
  /** What such a body depends on. */
  of?: unknown;
}

/** The letters that a change would cause, as each of those it touches gets them: read before it is saved. */
export function LettersAhead({ path, body, of = body }: Props) {
  const ask = useAsk();
  const [open, setOpen] = useState(false);
  const letters = useQuery({
    queryKey: ['letters-ahead', path, of],
    queryFn: async () => ask<LetterAhead[]>(path, 'POST', typeof body === 'function' ? await body() : body),
    enabled: open,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
  return (
    <Box mt={6}>
      <Button size="compact-sm" variant="default" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Put the letters away' : 'Read what they get'}
      </Button>
      {open && letters.isLoading && <Loader size="sm" m="sm" aria-label="Writing the letters" />}
      {open && letters.error && <Alert color="clay">{letters.error.message}</Alert>}
      {open && letters.data && <Letters letters={letters.data} />}
    </Box>
  );
}

function Letters({ letters }: { letters: LetterAhead[] }) {
  if (!letters.length)
    return (
      <Text size="sm" mt="xs">
        No letter leaves: their calendars are right as they are.
      </Text>
    );
  return (
    <Accordion
      variant="separated"
      mt="xs"
      data-testid="letters-ahead"
      // One letter alone is what was asked for: it is open at once.
      defaultValue={letters.length === 1 ? '0' : null}
      styles={{ item: { background: 'var(--paper)', border: '1px solid var(--line)', marginTop: 6 } }}
    >
      {letters.slice(0, MOST).map((l, i) => (
        <Accordion.Item key={i} value={String(i)}>
          <Accordion.Control>
            <Text size="sm" fw={600}>
              {countWords(l.names.length, 'person', 'people')}: {l.subject}
            </Text>
            <Text size="sm" c="dimmed">
              {namesWords(l.names)}, {zoneWords(l.zone)} time
              {l.dueAt > serverNow() + SOON_MS && `, leaves ${instantWords(l.dueAt, l.zone)}`}
            </Text>
            <Text size="sm" c="dimmed">
              {l.entries.length
                ? `In their calendar: ${l.entries.join('; ')}`
                : 'Nothing is written into their calendar'}
            </Text>
          </Accordion.Control>
          <Accordion.Panel>
            <LetterPaper title={`The letter to ${l.names[0]!}`} html={l.html} height={320} />
          </Accordion.Panel>
        </Accordion.Item>
      ))}
      {letters.length > MOST && (
        <Text size="sm" mt="xs">
          and {letters.length - MOST} more kinds of letter to{' '}
          {countWords(
            letters.slice(MOST).reduce((n, l) => n + l.names.length, 0),
            'person',
            'people',
          )}
        </Text>
      )}
    </Accordion>
  );
}
