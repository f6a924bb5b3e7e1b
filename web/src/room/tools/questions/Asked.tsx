import { useNow } from '../../../app/clock';
import { lengthWords } from '@nimble-bell/core/calendar';
import { isAsked, isOpen, questionOn, roundOf, type AskedQuestion } from '@nimble-bell/core/room';
import { useInside, useMe, useTeaching, type Inside } from '../../live/useRoom';
import { Answering } from './Answering';
import { Answered } from './Answered';
import { Conducting } from './Conducting';
import classes from './questions.module.css';

const select = ({ room }: Inside) => questionOn(room);
const same = (a: AskedQuestion | null, b: AskedQuestion | null) => a === b;

/** What the class is asked: answered by students, conducted by those who teach. */
export default function Asked() {
  const asked = useInside(select, same);
  const teaching = useTeaching();
  const me = useMe();
  if (!asked) return null;
  const { question, rounds } = asked;
  const round = roundOf(asked);
  const open = isOpen(asked);
  const own = round.answers[me.member]?.answer ?? null;
  return (
    <section className={classes.asked} aria-label="Asked" data-testid="asked">
      <header className={classes.head}>
        <h2>{question.text || 'What was asked aloud'}</h2>
        <span className={classes.state}>
          {rounds.length > 1 && `Round ${rounds.length}. `}
          {open ? round.until !== null && <TimeLeft until={round.until} /> : 'Closed'}
        </span>
      </header>
      {teaching ? (
        <Conducting asked={asked} />
      ) : (
        <>
          {open && isAsked(me) && <Answering key={rounds.length} asked={asked} own={own} />}
          {!open && !round.shown && (
            <p className={classes.note}>
              {own === null ? 'Nobody answers any more.' : 'Your answer is in. Wait for what the class said.'}
            </p>
          )}
          {round.tally && (
            <Answered
              question={question}
              tally={round.tally}
              before={rounds.length > 1 ? (rounds.at(-2)!.tally ?? null) : null}
              own={own}
              right={asked.rightShown ? question.right : null}
            />
          )}
        </>
      )}
    </section>
  );
}

function TimeLeft({ until }: { until: number }) {
  const now = useNow(250);
  return (
    <span role="timer" className="figures">
      {lengthWords(Math.ceil(Math.max(0, until - now) / 1000) * 1000)} left
    </span>
  );
}
