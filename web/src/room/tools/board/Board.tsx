import { Button } from '@mantine/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import { CLASS, placeOf, type ShownWork } from '@nimble-bell/core/room';
import { useRefusal } from '../../controls/useRefusal';
import { useInside, useMay, useNameOf, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import { inPlace } from './inPlace';
import { Surface } from './Surface';
import { Words } from './Words';
import classes from './board.module.css';

// Only where there were tables.
const Work = lazy(() => import('../tables/Work'));

const COLOURS: Stroke['colour'][] = ['ink', 'pine', 'brass', 'clay', 'tide'];

const selectBoard = ({ room }: Inside) => room.board;
const selectPlace = ({ room, info }: Inside) => {
  const place = placeOf(room, info.me.member);
  return { place, wereTables: place === CLASS && room.tables.were.length > 0 && !room.tables.laid };
};

/** A shared board: strokes and words are the room's events, so they are replayed with the recording. */
export function Board() {
  const board = useInside(selectBoard, Object.is);
  const { place, wereTables } = useInside(selectPlace);
  const teaching = useTeaching();
  const shown = place === CLASS ? board.shown : null;
  return (
    <div className={classes.board} data-own-height>
      {(shown || (teaching && wereTables)) && (
        <Suspense>
          <Work shown={shown} />
        </Suspense>
      )}
      {shown ? <ShownBoard shown={shown} /> : <OwnBoard place={place} />}
    </div>
  );
}

/** What was made at a table: it is looked at. */
function ShownBoard({ shown }: { shown: ShownWork }) {
  const nameOf = useNameOf();
  return <Surface on={shown} nameOf={nameOf} draw={null} colour="ink" />;
}

function OwnBoard({ place }: { place: string }) {
  const { send } = useRoom();
  const teaching = useTeaching();
  const { allowed } = useMay('draw');
  const refusal = useRefusal('draw');
  const board = useInside(selectBoard, Object.is);
  const on = useMemo(() => inPlace(board, place), [board, place]);
  const nameOf = useNameOf();
  const [colour, setColour] = useState<Stroke['colour']>('ink');
  return (
    <>
      <div className={classes.boardTools}>
        {allowed ? (
          COLOURS.map((c) => (
            <button
              key={c}
              type="button"
              aria-label={`Pen: ${c}`}
              aria-pressed={colour === c}
              className={classes.pen}
              onClick={() => setColour(c)}
            >
              <i style={{ background: `var(--${c})` }} data-pen={c} />
              {c}
            </button>
          ))
        ) : (
          <span>{refusal}</span>
        )}
        {allowed && <Words texts={on.texts} colour={colour} />}
        {teaching && on.strokes.length + on.texts.length > 0 && (
          <Button size="compact-xs" variant="default" onClick={() => void send({ type: 'clearBoard' })}>
            Clear the board
          </Button>
        )}
      </div>
      <Surface
        on={on}
        nameOf={nameOf}
        draw={allowed ? (points) => void send({ type: 'draw', stroke: { points, colour } }) : null}
        colour={colour}
      />
    </>
  );
}
