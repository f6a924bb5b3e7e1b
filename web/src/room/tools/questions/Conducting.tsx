import { Button } from '@mantine/core';
import { listWords } from '@nimble-bell/core/calendar';
import { answerWords, tallyOf } from '@nimble-bell/core/questions';
import { isAsked, isOpen, roundOf, type AskedQuestion, type Round } from '@nimble-bell/core/room';
import { useInside, useNameOf, useRoom, type Inside } from '../../live/useRoom';
import strip from '../strip.module.css';
import { Answered } from './Answered';
import classes from './questions.module.css';

const tallyIn = ({ question }: AskedQuestion, { answers }: Round) =>
  tallyOf(
    question,
    Object.values(answers).map((g) => g.answer),
  );

const selectHere = ({ room }: Inside) =>
  Object.values(room.presence.people)
    .filter((o) => o.present && isAsked(o))
    .map((o) => o.member);

/** A question as those who teach have it: the answers as they come, who is still to answer, and what is shown when. */
export function Conducting({ asked }: { asked: AskedQuestion }) {
  const { question, rounds, rightShown } = asked;
  const round = roundOf(asked);
  const here = useInside(selectHere);
  const nameOf = useNameOf();
  const { answers } = round;
  const answered = Object.keys(answers).length;
  const missing = question.anonymous ? [] : here.filter((m) => !answers[m]);
  return (
    <>
      <p className={classes.note} role="status">
        {answered} of {Math.max(here.length, answered)} have answered.
        {question.anonymous && ' No names are kept with the answers.'}
        {round.shown ? ' Everybody sees this.' : ' Only those who teach see this.'}
      </p>
      <Answered
        question={question}
        tally={tallyIn(asked, round)}
        before={rounds.length > 1 ? tallyIn(asked, rounds.at(-2)!) : null}
        own={null}
        right={question.right}
      />
      {!question.anonymous && (
        <details className={classes.who}>
          <summary>Who answered what</summary>
          <ul>
            {Object.entries(answers).map(([member, { answer }]) => (
              <li key={member}>
                <bdi>{nameOf(member)}</bdi>: {answerWords(question, answer)}
              </li>
            ))}
          </ul>
          {missing.length > 0 && <p>Still to answer: {listWords(missing.map(nameOf))}</p>}
        </details>
      )}
      <Acts open={isOpen(asked)} shown={round.shown} right={question.right !== null && !rightShown} />
    </>
  );
}

function Acts({ open, shown, right }: { open: boolean; shown: boolean; right: boolean }) {
  const { send } = useRoom();
  return (
    <div className={strip.acts}>
      {!shown && (
        <Button size="compact-sm" onClick={() => void send({ type: 'showAnswers', right: false })}>
          Show the class
        </Button>
      )}
      {right && (
        <Button
          size="compact-sm"
          variant={shown ? 'filled' : 'light'}
          onClick={() => void send({ type: 'showAnswers', right: true })}
        >
          {shown ? 'Show the right answer' : 'Show with the right answer'}
        </Button>
      )}
      {open ? (
        <Button size="compact-sm" variant="default" onClick={() => void send({ type: 'closeAnswers' })}>
          Close the answers
        </Button>
      ) : (
        <Button size="compact-sm" variant="default" onClick={() => void send({ type: 'askAgain' })}>
          Ask it again
        </Button>
      )}
      <Button size="compact-sm" variant="default" onClick={() => void send({ type: 'putAway' })}>
        Put it away
      </Button>
    </div>
  );
}
