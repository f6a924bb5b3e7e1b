import { Button, Checkbox, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Answer, OnPicture } from '@nimble-bell/core/questions';
import { fits, letterOf, optionsOf } from '@nimble-bell/core/questions';
import type { AskedQuestion } from '@nimble-bell/core/room';
import { useRoom } from '../../live/useRoom';
import { Ordering } from './Ordering';
import { Pointing } from './Pointing';
import classes from './questions.module.css';

interface Props {
  asked: AskedQuestion;
  own: Answer | null;
}

/** Answering: a choice by one press; whatever else is made first, then given. What was given can be changed until it closes. */
export function Answering({ asked, own }: Props) {
  const { send } = useRoom();
  const { question, id } = asked;
  const [made, setMade] = useState<Answer | null>(own);
  const give = (answer: Answer) => void send({ type: 'answer', question: id, answer });
  const byPress = question.kind === 'yesNo' || question.kind === 'trueFalse' || question.kind === 'one';
  const ready = made !== null && fits(question, made);
  const given = JSON.stringify(made) === JSON.stringify(own);
  return (
    <div className={classes.answering}>
      {byPress ? (
        <div className={classes.choices} role="group" aria-label="Your answer">
          {optionsOf(question).map((option, i) => (
            <button
              key={i}
              type="button"
              className={classes.choice}
              aria-pressed={own === i}
              onClick={() => give(i)}
            >
              {question.kind === 'one' && <b>{letterOf(i)}</b>}
              {option && <span>{option}</span>}
            </button>
          ))}
        </div>
      ) : (
        <form
          className={classes.form}
          onSubmit={(e) => {
            e.preventDefault();
            if (ready) give(made);
          }}
        >
          <Making asked={asked} made={made} make={setMade} />
          <Button type="submit" disabled={!ready || given}>
            {own === null ? 'Answer' : given ? 'Your answer is in' : 'Change my answer'}
          </Button>
        </form>
      )}
      <p className={classes.note}>
        {question.anonymous
          ? 'Nobody is told who gave which answer.'
          : 'Those who teach see your answer with your name.'}
        {byPress && own !== null && ' Your answer is in; press another to change it.'}
      </p>
    </div>
  );
}

interface MakingProps {
  asked: AskedQuestion;
  made: Answer | null;
  make: (answer: Answer | null) => void;
}

function Making({ asked: { question }, made, make }: MakingProps) {
  if (question.kind === 'several')
    return (
      <Checkbox.Group
        label="Choose all that are right"
        value={((made as number[] | null) ?? []).map(String)}
        onChange={(values) => make(values.map(Number).sort((a, b) => a - b))}
      >
        <div className={classes.choices}>
          {question.options.map((option, i) => (
            <Checkbox key={i} value={String(i)} label={option || letterOf(i)} />
          ))}
        </div>
      </Checkbox.Group>
    );
  if (question.kind === 'point')
    return (
      question.picture && (
        <Pointing picture={question.picture} points={[]} own={made as OnPicture | null} point={make} />
      )
    );
  if (question.kind === 'order')
    return <Ordering options={question.options} order={made as number[] | null} onChange={make} />;
  if (question.kind === 'number')
    return (
      <NumberInput
        label="Your number"
        value={(made as number | null) ?? ''}
        onChange={(v) => make(typeof v === 'number' ? v : null)}
      />
    );
  return (
    <TextInput
      label="Your answer"
      maxLength={300}
      value={(made as string | null) ?? ''}
      onChange={(e) => make(e.currentTarget.value)}
    />
  );
}
