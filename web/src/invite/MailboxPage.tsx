import {
  Anchor,
  Button,
  Container,
  Grid,
  Group,
  Paper,
  ScrollArea,
  Stack,
  Text,
  TextInput,
  Title,
  Typography,
  UnstyledButton,
} from '@mantine/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Answer, Letter, LetterDetail } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { Bar } from '../app/Bar';
import { LetterPaper } from '../ui/LetterPaper';
import { useAsk } from '../app/api';
import { useAsked, useChange, stopOf } from '../app/queries';
import { Fault } from '../ui/Fault';
import { Empty } from '../ui/Panel';
import { deviceZone } from '../app/reader';

/** The stand-in mailbox: everyone's post on this machine, to read and to follow the links in it. */
export function MailboxPage() {
  const letters = useAsked<Letter[]>('/mailbox', { every: 2000 });
  const [search, setSearch] = useState('');
  const [params, setParams] = useSearchParams();
  const open = params.get('letter');
  const stop = stopOf(letters);
  if (stop) return <Fault error={stop} />;
  const found = letters.data?.filter((l) =>
    `${l.to} ${l.subject}`.toLowerCase().includes(search.toLowerCase()),
  );
  return (
    <>
      <Bar />
      <Container size="lg" py="lg" component="main" id="content">
        <Title order={1} size="h2">
          Everyone&apos;s post
        </Title>
        <Text c="dimmed" mb="md">
          A stand-in for the mail outside: what is sent here stays on this machine.
        </Text>
        <Grid>
          <Grid.Col span={{ base: 12, sm: 4 }}>
            <TextInput
              aria-label="Search the post"
              placeholder="To whom"
              mb="xs"
              value={search}
              onChange={(e) => setSearch(e.currentTarget.value)}
            />
            {found?.length === 0 && (
              <Empty>{search ? 'No post for them.' : 'No post yet. Invite a class first.'}</Empty>
            )}
            <ScrollArea.Autosize mah={560} viewportProps={{ tabIndex: 0, 'aria-label': 'Letters' }}>
              <Stack gap={4}>
                {found?.map((l) => (
                  <UnstyledButton
                    key={l.id}
                    onClick={() => setParams({ letter: String(l.id) })}
                    aria-pressed={open === String(l.id)}
                  >
                    <Paper withBorder p="xs" bg={open === String(l.id) ? 'var(--pine-wash)' : undefined}>
                      <Text size="sm" fw={600}>
                        {l.to}
                      </Text>
                      <Text size="sm" lineClamp={1}>
                        {l.subject}
                      </Text>
                    </Paper>
                  </UnstyledButton>
                ))}
              </Stack>
            </ScrollArea.Autosize>
          </Grid.Col>
          <Grid.Col span={{ base: 12, sm: 8 }}>{open && <LetterView id={open} />}</Grid.Col>
        </Grid>
      </Container>
    </>
  );
}

const ANSWERS: { answer: Answer; label: string }[] = [
  { answer: 'accepted', label: 'Accept' },
  { answer: 'tentative', label: 'Perhaps' },
  { answer: 'declined', label: 'Decline' },
];

function LetterView({ id }: { id: string }) {
  const letter = useAsked<LetterDetail>(`/mailbox/${id}`);
  const ask = useAsk();
  const answer = useChange(
    (input: Answer) => ask<{ sent: number }>(`/mailbox/${id}/answer`, 'POST', { answer: input }),
    ({ sent }) => (sent ? 'The answer is on its way back.' : 'There is nothing to answer in it.'),
  );
  if (!letter.data) return null;
  const { from, to, subject, text, html, calendars, at } = letter.data;
  const asks = calendars.filter((c) => c.method === 'REQUEST');
  return (
    <Paper withBorder p="lg" component="article" aria-label={subject}>
      <Text size="sm" c="dimmed">
        From {from} to {to}, {instantWords(at, deviceZone())}
      </Text>
      <Title order={2} size="h4" mb="md">
        {subject}
      </Title>
      <Typography>
        {text.split('\n\n').map((p, i) => (
          <p key={i} style={{ whiteSpace: 'pre-line' }}>
            <Linked text={p} />
          </p>
        ))}
      </Typography>
      {asks.length > 0 && (
        <Group my="sm">
          <Text size="sm">Answer as their calendar program would:</Text>
          {ANSWERS.map((a) => (
            <Button
              key={a.answer}
              size="compact-sm"
              variant="default"
              loading={answer.isPending}
              onClick={() => answer.mutate(a.answer)}
            >
              {a.label}
            </Button>
          ))}
        </Group>
      )}
      {html && (
        <details>
          <summary>As a mail program shows it</summary>
          <LetterPaper title="The letter as HTML" html={html} />
        </details>
      )}
      {calendars.map((c, i) => (
        <details key={i}>
          <summary>
            {c.method} {c.title}
          </summary>
          <ScrollArea.Autosize mah={260} viewportProps={{ tabIndex: 0, 'aria-label': 'Calendar entry' }}>
            <pre style={{ fontSize: 12.5 }}>{c.content}</pre>
          </ScrollArea.Autosize>
        </details>
      ))}
    </Paper>
  );
}

/** The text with its addresses as links. */
function Linked({ text }: { text: string }) {
  return text.split(/(https?:\/\/\S+)/).map((piece, i) =>
    piece.startsWith('http') ? (
      <Anchor key={i} href={piece}>
        {piece}
      </Anchor>
    ) : (
      piece
    ),
  );
}
