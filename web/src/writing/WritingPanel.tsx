import { Button, Group, Loader, SegmentedControl, Stack, Text, Textarea } from '@mantine/core';
import { useState } from 'react';
import type { Addressee, SessionWritten, WrittenInfo } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { stopOf, useAsked, useChange } from '../app/queries';
import { Fault } from '../ui/Fault';
import { Empty, Panel } from '../ui/Panel';
import { WrittenList } from './WrittenList';

interface WritingPanelProps {
  session: string;
  /** One's own id in the course. */
  me: string;
  teaching: boolean;
  zone: string;
  /** Its class is over. */
  held: boolean;
}

const POLL_MS = 10_000;

/** What is written around a class: before its door opens, and after it. */
export function WritingPanel({ session, me, teaching, zone, held }: WritingPanelProps) {
  const asked = useAsked<SessionWritten>(`/sessions/${session}/written`, { every: () => POLL_MS });
  const [answering, setAnswering] = useState<WrittenInfo | null>(null);
  const stop = stopOf(asked);
  if (stop) return <Fault error={stop} />;
  const { data } = asked;
  return (
    <Panel
      title={held ? 'Written before and after the class' : 'Written before the class'}
      about={aboutOf(data, zone)}
    >
      {!data && <Loader aria-label="Looking for what was written" />}
      {data?.written.length === 0 && <Empty>Nothing has been written here.</Empty>}
      {data && (
        <Stack>
          <WrittenList
            written={data.written}
            me={me}
            zone={zone}
            answer={teaching && !data.closed.teachers ? setAnswering : null}
          />
          <Writing
            key={answering?.id}
            {...{ session, teaching, answering }}
            closed={data.closed}
            done={() => setAnswering(null)}
          />
        </Stack>
      )}
    </Panel>
  );
}

function aboutOf(data: SessionWritten | undefined, zone: string): string | undefined {
  if (!data?.now) return undefined;
  const until = instantWords(data.now.until, zone);
  return data.now.when === 'ahead' ? `Open until the door opens, ${until}.` : `Open until ${until}.`;
}

interface WritingProps {
  session: string;
  teaching: boolean;
  /** What is answered to its writer alone. */
  answering: WrittenInfo | null;
  closed: SessionWritten['closed'];
  done: () => void;
}

function Writing({ session, teaching, answering, closed, done }: WritingProps) {
  const ask = useAsk();
  const [text, setText] = useState('');
  const [to, setTo] = useState<'class' | 'teachers'>(closed.class ? 'teachers' : 'class');
  const addressee: Addressee = answering ? { to: 'member', member: answering.from } : { to };
  const why = answering ? closed.teachers : closed[to];
  const send = useChange(
    () => ask(`/sessions/${session}/written`, 'POST', { addressee, text }),
    () => 'It is written.',
  );
  if (closed.class && closed.teachers) return <Text c="dimmed">{closed.teachers}</Text>;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        send.mutate(undefined, { onSuccess: () => (setText(''), done()) });
      }}
    >
      <Stack gap="xs">
        {answering ? (
          <Group gap="xs">
            <Text size="sm">To {answering.name} alone. Those who teach can read it.</Text>
            <Button size="compact-sm" variant="default" onClick={done}>
              To the class instead
            </Button>
          </Group>
        ) : (
          <ToWhom {...{ to, setTo, teaching }} />
        )}
        {why ? (
          <Text c="dimmed">{why}</Text>
        ) : (
          <>
            <Textarea
              aria-label="Write"
              placeholder={answering ? 'Your answer' : 'A question, an answer, something to bring along'}
              autosize
              minRows={2}
              maxRows={8}
              maxLength={4000}
              autoFocus={answering !== null}
              value={text}
              onChange={(e) => setText(e.currentTarget.value)}
            />
            <Group justify="flex-end">
              <Button type="submit" loading={send.isPending} disabled={!text.trim()}>
                Write it
              </Button>
            </Group>
          </>
        )}
      </Stack>
    </form>
  );
}

interface ToWhomProps {
  to: 'class' | 'teachers';
  setTo: (to: 'class' | 'teachers') => void;
  teaching: boolean;
}

const ToWhom = ({ to, setTo, teaching }: ToWhomProps) => (
  <SegmentedControl
    aria-label="To whom"
    value={to}
    onChange={(v) => setTo(v as ToWhomProps['to'])}
    data={[
      { value: 'class', label: 'The class' },
      { value: 'teachers', label: teaching ? 'Those who teach' : 'Your teachers' },
    ]}
  />
);
