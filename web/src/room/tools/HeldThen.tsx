import { lazy, Suspense } from 'react';
import { listWords } from '@nimble-bell/core/calendar';
import { letterOf, optionsOf } from '@nimble-bell/core/questions';
import { questionOn, roundOf, type AskedQuestion } from '@nimble-bell/core/room';
import type { ReplayProps } from './replay';
import pick from './pick/pick.module.css';
import { Bars } from './questions/Bars';
import questions from './questions/questions.module.css';
import strip from './strip.module.css';
import { SignBars } from '../signs/SignBars';
import signs from '../signs/signs.module.css';
import { Face } from './time/Face';

// Not every class is asked for a place.
const PointsThen = lazy(() => import('./questions/PointsThen'));

/** The time, who was asked, the hands that were up and the signs that were given, and the question with what had been shown of its answers. */
export default function HeldThen(props: ReplayProps) {
  const { room, at, nameOf } = props;
  const asked = questionOn(room);
  return (
    <>
      {room.timer.on && (
        <div className={strip.strip}>
          <Face timer={room.timer.on} now={at} />
        </div>
      )}
      {room.pick.now && (
        <div className={strip.strip}>
          <span className={pick.who}>{nameOf(room.pick.now.member)} is asked.</span>
        </div>
      )}
      {room.floor.hands.length > 0 && (
        <p className={signs.then}>
          {room.floor.hands.length === 1 ? 'A hand is up' : `${room.floor.hands.length} hands are up`}:{' '}
          {listWords(room.floor.hands.map((h) => nameOf(h.member)))}.
        </p>
      )}
      {Object.keys(room.signs).length > 0 && (
        <div className={signs.then}>
          <SignBars signs={room.signs} nameOf={nameOf} />
        </div>
      )}
      {asked && <AskedThen asked={asked} {...props} />}
    </>
  );
}

function AskedThen({ asked, room, nameOf, pages }: ReplayProps & { asked: AskedQuestion }) {
  const { question, rounds, rightShown } = asked;
  const { tally, shown } = roundOf(asked);
  const options = optionsOf(question);
  return (
    <div className={questions.then}>
      <h2>{question.text || 'What was asked aloud'}</h2>
      {shown && tally?.points && question.picture && (
        <Suspense>
          <PointsThen {...{ room, nameOf, pages }} picture={question.picture} points={tally.points} />
        </Suspense>
      )}
      {shown && tally ? (
        <Bars
          question={question}
          tally={tally}
          before={rounds.at(-2)?.tally ?? null}
          own={null}
          right={rightShown ? question.right : null}
        />
      ) : (
        options.length > 0 && (
          <p className={questions.note}>{options.map((o, i) => o || letterOf(i)).join(' · ')}</p>
        )
      )}
    </div>
  );
}
