import { Button } from '@mantine/core';
import { useState } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import { placeOf } from '@nimble-bell/core/room';
import { useRefusal } from '../../controls/useRefusal';
import { useInside, useMay, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import { Surface } from './Surface';
import classes from './board.module.css';

const COLOURS: Stroke['colour'][] = ['ink', 'pine', 'brass', 'clay', 'tide'];

const selectStrokes = ({ room }: Inside) => room.board.strokes;
const selectPlace = ({ room, info }: Inside) => placeOf(room, info.me.member);

/** A shared board: strokes are the room's events, so they are replayed with the recording. */
export function Board() {
  const { send } = useRoom();
  const teaching = useTeaching();
  const { allowed } = useMay('draw');
  const refusal = useRefusal('draw');
  const place = useInside(selectPlace);
  const all = useInside(selectStrokes, Object.is);
  const strokes = all.every((s) => s.place === place) ? all : all.filter((s) => s.place === place);
  const [colour, setColour] = useState<Stroke['colour']>('ink');
  return (
    <div className={classes.board}>
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
        {teaching && strokes.length > 0 && (
          <Button size="compact-xs" variant="default" onClick={() => void send({ type: 'clearBoard' })}>
            Clear the board
          </Button>
        )}
      </div>
      <Surface
        strokes={strokes}
        draw={allowed ? (points) => void send({ type: 'draw', stroke: { points, colour } }) : null}
        colour={colour}
      />
    </div>
  );
}
