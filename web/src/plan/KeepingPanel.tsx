import { Button, Group, Modal, Select, Stack, Text } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { TermInfo, Traces } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { Panel } from '../ui/Panel';

/** Where the course is kept: moved to another term, put away, or deleted, as far as what has to stay allows. */
export function KeepingPanel() {
  const course = useThisCourse();
  const traces = useAsked<Traces>(`/courses/${course.id}/traces`);
  if (!traces.data) return null;
  const { held, written, ahead } = traces.data;
  const free = held === 0 && written === 0;
  return (
    <Panel title="The course itself" about={keptWords(traces.data)}>
      {(free || ahead === 0 || course.archivedAt !== null) && (
        <Group align="flex-end" justify="space-between">
          {free ? <Move /> : <span />}
          <Group>
            <PutAway ahead={ahead} />
            {free && <Delete />}
          </Group>
        </Group>
      )}
    </Panel>
  );
}

/** What of it has to stay, and what follows. */
function keptWords({ held, written, ahead }: Traces): string {
  if (held > 0)
    return `${countWords(held, 'session')} of it ${held === 1 ? 'was' : 'were'} held, so it stays. ${ahead ? 'Once no session is ahead it can be put away.' : 'It can be put away.'}`;
  if (written > 0)
    return `${countWords(written, 'person', 'people')} of it ${written === 1 ? 'was' : 'were'} written to, so it stays in its term; Reuse makes one like it in another.`;
  return 'Nobody has been told of it yet: it can move to another term, or go.';
}

function Move() {
  const course = useThisCourse();
  const ask = useAsk();
  const terms = useAsked<TermInfo[]>('/terms');
  const [term, setTerm] = useState<string | null>(null);
  const move = useChange(
    (to: string) => ask(`/courses/${course.id}/move`, 'POST', { term: to }),
    () => 'Moved, by its teaching weeks and weekdays.',
  );
  const others = terms.data?.filter((t) => t.id !== course.termId) ?? [];
  if (!others.length) return <span />;
  return (
    <Group align="flex-end">
      <Select
        label="Move it to another term"
        placeholder={course.term.name}
        data={others.map((t) => ({ value: t.id, label: t.name }))}
        value={term}
        onChange={setTerm}
      />
      <Button variant="default" disabled={!term} loading={move.isPending} onClick={() => move.mutate(term!)}>
        Move it
      </Button>
    </Group>
  );
}

function PutAway({ ahead }: { ahead: number }) {
  const course = useThisCourse();
  const ask = useAsk();
  const away = course.archivedAt !== null;
  const put = useChange(
    (archived: boolean) => ask(`/courses/${course.id}/archived`, 'PUT', { archived }),
    (_, archived) => (archived ? 'Put away: it stands below your other courses.' : 'It is at hand again.'),
  );
  if (!away && ahead > 0) return null;
  return (
    <Button variant="default" loading={put.isPending} onClick={() => put.mutate(!away)}>
      {away ? 'Bring it back' : 'Put it away'}
    </Button>
  );
}

function Delete() {
  const course = useThisCourse();
  const ask = useAsk();
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const remove = useChange(
    () => ask(`/courses/${course.id}`, 'DELETE'),
    () => `${course.code} is deleted.`,
    () => void navigate('/courses'),
  );
  return (
    <>
      <Button variant="default" onClick={() => setAsking(true)}>
        Delete it
      </Button>
      <Modal
        opened={asking}
        onClose={() => setAsking(false)}
        title={`Delete ${course.code} ${course.title}?`}
      >
        <Stack>
          <Text>
            Its {countWords(course.series.length, 'series', 'series')}, its class list of{' '}
            {countWords(course.counts.students, 'student')}, its notices and files go for good. Nothing brings
            them back.
          </Text>
          <Group>
            <Button variant="default" onClick={() => setAsking(false)} data-autofocus>
              Keep it
            </Button>
            <Button color="clay" loading={remove.isPending} onClick={() => remove.mutate()}>
              Delete it for good
            </Button>
          </Group>
        </Stack>
      </Modal>
    </>
  );
}
