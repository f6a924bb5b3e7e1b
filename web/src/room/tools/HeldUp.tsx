import { lazy, Suspense } from 'react';
import { useInside, type Inside } from '../live/useRoom';
import { TimeBell } from './time/TimeBell';

// Each comes when the first of its kind does.
const PresentTurn = lazy(() => import('../floor/PresentTurn'));
const TimeStrip = lazy(() => import('./time/TimeStrip'));
const PickStrip = lazy(() => import('./pick/PickStrip'));
const CardStrip = lazy(() => import('./film/CardStrip'));
const TableStrip = lazy(() => import('./tables/TableStrip'));
const Asked = lazy(() => import('./questions/Asked'));

const select = ({ room, info }: Inside) => ({
  present: info.me.member in room.stage.asked,
  time: room.timer.on !== null,
  pick: room.pick.now !== null,
  question: room.questions.on,
  tables: room.tables.laid !== null,
  card: room.film.card !== null,
});

/** What is held up before everybody, over the stage: the tables, the time, an address, who is asked, and what the class is asked. */
export function HeldUp() {
  const { present, time, pick, question, tables, card } = useInside(select);
  return (
    <Suspense>
      <TimeBell />
      {present && <PresentTurn />}
      {tables && <TableStrip />}
      {card && <CardStrip />}
      {time && <TimeStrip />}
      {pick && <PickStrip />}
      {question !== null && <Asked key={question} />}
    </Suspense>
  );
}
