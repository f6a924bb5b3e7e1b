import { Button, Group, Select, Stack, Switch, Text, Textarea } from '@mantine/core';
import { useState } from 'react';
import {
  KIND_WORDS,
  letterOf,
  MOST_OPTIONS,
  optionsOf,
  QUESTION_KINDS,
  questionFault,
  readQuestion,
  type Answer,
  type Question,
  type QuestionKind,
} from '@nimble-bell/core/questions';
import { useRoom } from '../../live/useRoom';
import classes from './questions.module.css';

const TIMES = [
  { value: '', label: 'Until I close it' },
  ...[15, 30, 60, 120, 300].map((s) => ({
    value: String(s),
    label: s < 60 ? `${s} seconds` : s === 60 ? '1 minute' : `${s / 60} minutes`,
  })),
];

/** What is asked aloud, and answered on the page: one press. */
const ALOUD: readonly { word: string; kind: QuestionKind; options: number }[] = [
  { word: 'Yes or no', kind: 'yesNo', options: 0 },
  { word: 'True or false', kind: 'trueFalse', options: 0 },
  { word: 'A to D', kind: 'one', options: 4 },
  { word: 'A number', kind: 'number', options: 0 },
  { word: 'In words', kind: 'words', options: 0 },
];

const CHOSEN: readonly QuestionKind[] = ['one', 'several', 'order'];

/** What is asked, as it is read out of what was written; another kind than was read, where it was chosen. */
function questionOf(
  text: string,
  kind: QuestionKind | null,
  right: Answer | null,
): Omit<Question, 'anonymous'> | null {
  const read = readQuestion(text);
  if (!read) return null;
  if (!kind || kind === read.kind) return { ...read, right: right ?? read.right };
  const options = CHOSEN.includes(kind) ? (read.options.length ? read.options : optionsOf(read)) : [];
  return { ...read, kind, options: [...options].slice(0, MOST_OPTIONS), right };
}

/** A question: asked aloud and answered here, or written as one would write it down. */
export default function Compose({ close }: { close: () => void }) {
  const { send } = useRoom();
  const [anonymous, setAnonymous] = useState(false);
  const [live, setLive] = useState(false);
  const [time, setTime] = useState('');
  const ask = (question: Omit<Question, 'anonymous'>) => {
    close();
    const seconds = time ? Number(time) : null;
    void send({ type: 'ask', question: { ...question, anonymous }, seconds, live });
  };
  return (
    <Stack gap="sm">
      <div>
        <Text size="sm" fw={650} mb={4}>
          Asked aloud, answered here
        </Text>
        <Group gap={6}>
          {ALOUD.map(({ word, kind, options }, i) => (
            <Button
              key={kind}
              size="compact-sm"
              variant="light"
              {...(i === 0 ? { 'data-autofocus': true } : {})}
              onClick={() =>
                ask({ text: '', kind, options: Array.from({ length: options }, () => ''), right: null })
              }
            >
              {word}
            </Button>
          ))}
        </Group>
      </div>
      <Written ask={ask} />
      <Group gap="md">
        <Switch
          size="xs"
          label="Without names"
          checked={anonymous}
          onChange={(e) => setAnonymous(e.currentTarget.checked)}
        />
        <Switch
          size="xs"
          label="Who has answered sees the others’"
          checked={live}
          onChange={(e) => setLive(e.currentTarget.checked)}
        />
      </Group>
      <Select
        size="xs"
        label="Time to answer"
        data={TIMES}
        value={time}
        allowDeselect={false}
        onChange={(v) => setTime(v ?? '')}
      />
    </Stack>
  );
}

function Written({ ask }: { ask: (question: Omit<Question, 'anonymous'>) => void }) {
  const [text, setText] = useState('');
  const [kind, setKind] = useState<QuestionKind | null>(null);
  const [right, setRight] = useState<Answer | null>(null);
  const question = questionOf(text, kind, right);
  const fault = question && questionFault({ ...question, anonymous: false });
  return (
    <form
      className={classes.form}
      onSubmit={(e) => {
        e.preventDefault();
        if (question && !fault) ask(question);
      }}
    >
      <Textarea
        label="Or written"
        description="Choices in lines of their own, by A) or a dash; the right one with a * behind it."
        rows={5}
        maxLength={3000}
        value={text}
        onChange={(e) => {
          setText(e.currentTarget.value);
          setRight(null);
        }}
      />
      {question && (
        <>
          <Select
            size="xs"
            label="Answered by"
            data={QUESTION_KINDS.map((k) => ({ value: k, label: KIND_WORDS[k] }))}
            value={question.kind}
            allowDeselect={false}
            onChange={(k) => {
              setKind(k as QuestionKind);
              setRight(null);
            }}
          />
          <Preview question={question} setRight={setRight} />
        </>
      )}
      {fault && (
        <Text size="sm" c="clay" role="alert">
          {fault}
        </Text>
      )}
      <Button type="submit" disabled={!question || fault !== null}>
        Ask the class
      </Button>
    </form>
  );
}

/** What can be chosen; pressing one makes it the right one. */
function Preview({
  question,
  setRight,
}: {
  question: Omit<Question, 'anonymous'>;
  setRight: (right: Answer | null) => void;
}) {
  const { kind, right } = question;
  const options = optionsOf(question);
  if (!options.length || kind === 'order') return null;
  const several = kind === 'several';
  const isRight = (i: number) => (several ? ((right as number[] | null) ?? []).includes(i) : right === i);
  const press = (i: number) => {
    if (!several) return setRight(isRight(i) ? null : i);
    const now = (right as number[] | null) ?? [];
    const next = isRight(i) ? now.filter((r) => r !== i) : [...now, i].sort((a, b) => a - b);
    setRight(next.length ? next : null);
  };
  return (
    <div role="group" aria-label="The right answer, if there is one">
      <Text size="xs" c="dimmed" mb={2}>
        Press the right answer, if there is one.
      </Text>
      <div className={classes.preview}>
        {options.map((option, i) => (
          <button key={i} type="button" aria-pressed={isRight(i)} onClick={() => press(i)}>
            {kind === 'one' || several ? `${letterOf(i)} ` : ''}
            {option}
          </button>
        ))}
      </div>
    </div>
  );
}
