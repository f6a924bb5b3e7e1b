import { lazy, Suspense, useState } from 'react';
import { CLASS, ownPlace, placeOf, type ShownWork } from '@nimble-bell/core/room';
import { SmallButton } from '../../../ui/SmallButton';
import { useInside, useNameOf, useTeaching, type Inside } from '../../live/useRoom';
import { DrawingBoard } from './DrawingBoard';
import { Surface } from './Surface';
import classes from './board.module.css';

// Only where something is shown, or everybody draws for themselves.
const Work = lazy(() => import('../tables/Work'));
const Wall = lazy(() => import('./Wall'));

const selectShown = ({ room }: Inside) => room.board.shown;
const select = ({ room, info }: Inside) => {
  const { me } = info;
  const place = placeOf(room, me.member);
  return {
    place,
    me: me.member,
    own: room.board.given && me.role !== 'observer',
    wereTables: place === CLASS && room.tables.were.length > 0 && !room.tables.laid,
  };
};

/** The board of where one is, and boards of one's own: what is on them are the room's events, replayed with the recording. */
export default function BoardStage() {
  const { place, me, own, wereTables } = useInside(select);
  const inClass = useInside(selectShown, Object.is);
  const teaching = useTeaching();
  const shown = place === CLASS ? inClass : null;
  // One's own board is before one as soon as one has it, and what is shown as soon as it is; one may look at the other.
  const [chosen, choose] = useState<{ own: boolean; while: unknown }>({ own: true, while: null });
  const mine = chosen.while === shown ? chosen.own : teaching || !shown;
  const apart = own && mine;
  return (
    <div className={classes.board} data-own-height data-tools>
      {(own || shown || (teaching && wereTables)) && (
        <div className={classes.head}>
          {(shown || (teaching && wereTables)) && (
            <Suspense>
              <Work shown={shown} />
            </Suspense>
          )}
          {own && (
            <div className={classes.which} role="group" aria-label="Which board">
              <SmallButton
                aria-pressed={apart}
                apart={apart}
                onClick={() => choose({ own: true, while: shown })}
              >
                {teaching ? 'Everybody’s own' : 'My own board'}
              </SmallButton>
              <SmallButton
                aria-pressed={!apart}
                apart={!apart}
                onClick={() => choose({ own: false, while: shown })}
              >
                {shown ? 'What is shown' : 'The board for all'}
              </SmallButton>
            </div>
          )}
        </div>
      )}
      {apart && teaching && (
        <Suspense>
          <Wall />
        </Suspense>
      )}
      {apart && !teaching && <DrawingBoard key="own" place={ownPlace(me)} />}
      {!apart && (shown ? <ShownBoard shown={shown} /> : <DrawingBoard key={place} place={place} />)}
    </div>
  );
}

/** What was made at a table, or by one: it is looked at. */
function ShownBoard({ shown }: { shown: ShownWork }) {
  const nameOf = useNameOf();
  return <Surface on={shown} nameOf={nameOf} />;
}
