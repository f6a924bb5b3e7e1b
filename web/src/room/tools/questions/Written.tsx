import { Button, NativeSelect, Text, Textarea } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import {
  KIND_WORDS,
  letterOf,
  MOST_OPTIONS,
  optionsOf,
  QUESTION_KINDS,
  questionFault,
  readQuestion,
  writtenAs,
  type Answer,
  type Question,
  type QuestionKind,
} from '@nimble-bell/core/questions';
import classes from './questions.module.css';

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

interface Props {
  label: string;
  /** What is done with it. */
  does: string;
  /** What it is begun with. */
  start?: Question | null;
  /** One comes to write it. */
  autoFocus?: boolean;
  give: (question: Omit<Question, 'anonymous'>) => void;
  /** What else belongs to it, before it is given. */
  children?: ReactNode;
}

/** A question as one writes it down, and what is read out of it. */
export function Written({ label, does, start = null, autoFocus = false, give, children }: Props) {
  const [text, setText] = useState(start ? writtenAs(start) : '');
  const [kind, setKind] = useState<QuestionKind | null>(start?.kind ?? null);
  const [right, setRight] = useState<Answer | null>(start?.right ?? null);
  const question = questionOf(text, kind, right);
  const fault = question && questionFault({ ...question, anonymous: false });
  return (
    <form
      className={classes.form}
      onSubmit={(e) => {
        e.preventDefault();
        if (question && !fault) give(question);
      }}
    >
      <Textarea
        label={label}
        description="Choices in lines of their own, by A) or a dash; the right one with a * behind it."
        rows={5}
        autoFocus={autoFocus}
        maxLength={3000}
        value={text}
        onChange={(e) => {
          setText(e.currentTarget.value);
          setRight(null);
        }}
      />
      {question && (
        <>
          <NativeSelect
            size="xs"
            label="Answered by"
            data={QUESTION_KINDS.filter((k) => k !== 'point').map((k) => ({
              value: k,
              label: KIND_WORDS[k],
            }))}
            value={question.kind}
            onChange={(e) => {
              setKind(e.currentTarget.value as QuestionKind);
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
      {children}
      <Button type="submit" disabled={!question || fault !== null}>
        {does}
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
          <button
            key={i}
            type="button"
            className={classes.right}
            aria-pressed={isRight(i)}
            onClick={() => press(i)}
          >
            {kind === 'one' || several ? `${letterOf(i)} ` : ''}
            {option}
          </button>
        ))}
      </div>
    </div>
  );
}
