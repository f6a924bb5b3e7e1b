import { Button, Group, NativeSelect, Stack, Switch, Text, Title } from '@mantine/core';
import { useState } from 'react';
import type { PreparedInput, PreparedQuestion } from '@nimble-bell/core/api';
import { dateIn, dayWords } from '@nimble-bell/core/calendar';
import { answerWords, KIND_WORDS, letterOf, optionsOf } from '@nimble-bell/core/questions';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { TIMES } from '../room/tools/questions/times';
import { Written } from '../room/tools/questions/Written';
import { Empty, Panel } from '../ui/Panel';
import { usePartTitles } from './usePartTitles';

/** What the class will be asked, written in peace: in the room one press asks it. */
export function QuestionsPage() {
  const course = useThisCourse();
  const questions = useAsked<PreparedQuestion[]>(`/courses/${course.id}/questions`);
  const [editing, setEditing] = useState<PreparedQuestion | 'new' | null>(null);
  return (
    <Stack>
      <Group justify="space-between">
        <Title order={1} size="h2">
          Questions
        </Title>
        {!editing && <Button onClick={() => setEditing('new')}>Write a question</Button>}
      </Group>
      {editing && (
        <QuestionForm
          key={editing === 'new' ? 'new' : editing.id}
          known={editing === 'new' ? null : editing}
          done={() => setEditing(null)}
        />
      )}
      {questions.data?.length === 0 && !editing && (
        <Empty>
          Nothing is prepared. A question written here is asked with one press in class, and goes along when
          the course is carried to another term.
        </Empty>
      )}
      {questions.data?.map((q) => (
        <Prepared key={q.id} prepared={q} edit={() => setEditing(q)} />
      ))}
    </Stack>
  );
}

function Prepared({ prepared, edit }: { prepared: PreparedQuestion; edit: () => void }) {
  const course = useThisCourse();
  const ask = useAsk();
  const [asking, setAsking] = useState(false);
  const remove = useChange(
    () => ask(`/courses/${course.id}/questions/${prepared.id}`, 'DELETE'),
    () => 'The question is gone.',
  );
  const { question, part, askedAt, by } = prepared;
  const about = [
    KIND_WORDS[question.kind],
    part && `for ${part}`,
    question.anonymous && 'without names',
    askedAt !== null && `asked ${dayWords(dateIn(course.term.zone, askedAt))}`,
    `by ${by}`,
  ];
  return (
    <Panel
      title={question.text}
      about={about.filter(Boolean).join(', ')}
      action={
        <Group gap="xs" wrap="nowrap">
          {!asking && (
            <Button size="compact-sm" variant="default" onClick={edit}>
              Change
            </Button>
          )}
          {asking ? (
            <>
              <Button size="compact-sm" color="clay" onClick={() => remove.mutate(undefined)}>
                Throw it away
              </Button>
              <Button size="compact-sm" variant="default" autoFocus onClick={() => setAsking(false)}>
                Keep it
              </Button>
            </>
          ) : (
            <Button size="compact-sm" variant="subtle" color="clay" onClick={() => setAsking(true)}>
              Throw away
            </Button>
          )}
        </Group>
      }
    >
      <Text size="sm">
        {optionsOf(question)
          .map((o, i) => (question.kind === 'one' || question.kind === 'several' ? `${letterOf(i)} ${o}` : o))
          .join(' · ')}
      </Text>
      {question.right !== null && (
        <Text size="sm" c="dimmed">
          Right: {answerWords(question, question.right)}
        </Text>
      )}
    </Panel>
  );
}

function QuestionForm({ known, done }: { known: PreparedQuestion | null; done: () => void }) {
  const course = useThisCourse();
  const ask = useAsk();
  const parts = usePartTitles(course.id);
  const [part, setPart] = useState(known?.part ?? '');
  const [seconds, setSeconds] = useState(known?.seconds ?? null);
  const [anonymous, setAnonymous] = useState(known?.question.anonymous ?? false);
  const at = `/courses/${course.id}/questions`;
  const save = useChange(
    (input: PreparedInput) => (known ? ask(`${at}/${known.id}`, 'PUT', input) : ask(at, 'POST', input)),
    () => 'The question is kept.',
    done,
  );
  return (
    <Panel title={known ? 'Change the question' : 'A question for class'}>
      <Written
        label="The question"
        autoFocus
        does={known ? 'Keep the change' : 'Keep it for class'}
        start={known?.question ?? null}
        give={(question) => save.mutate({ question: { ...question, anonymous }, part, seconds })}
      >
        <Group align="flex-end">
          <NativeSelect
            label="For which part of the class"
            data={[
              { value: '', label: 'Any' },
              ...[...new Set([...parts, ...(part ? [part] : [])])].map((p) => ({ value: p, label: p })),
            ]}
            value={part}
            onChange={(e) => setPart(e.currentTarget.value)}
          />
          <NativeSelect
            label="Time to answer"
            data={TIMES}
            value={seconds === null ? '' : String(seconds)}
            onChange={(e) => setSeconds(e.currentTarget.value ? Number(e.currentTarget.value) : null)}
          />
          <Switch
            label="Without names"
            checked={anonymous}
            onChange={(e) => setAnonymous(e.currentTarget.checked)}
          />
        </Group>
      </Written>
      <Button mt="sm" variant="subtle" size="compact-sm" onClick={done}>
        Leave it
      </Button>
    </Panel>
  );
}
