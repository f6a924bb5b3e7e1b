import { Button } from '@mantine/core';
import { getStroke } from 'perfect-freehand';
import { useRef, useState, type PointerEvent } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { refusalWords, type BoardStroke } from '@nimble-bell/core/room';
import { useRoom } from './useRoom';
import classes from './room.module.css';

const WIDTH = 1600;
const HEIGHT = 900;
const COLOURS: Stroke['colour'][] = ['ink', 'pine', 'brass', 'clay', 'tide'];

/** A shared board: strokes are the room's events, so they are replayed with the recording. */
export function Board() {
  const { state, send, may, teaching, info } = useRoom();
  const [colour, setColour] = useState<Stroke['colour']>('ink');
  const { allowed } = may('draw');
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
              style={{ background: `var(--${c})` }}
              onClick={() => setColour(c)}
            />
          ))
        ) : (
          <span>{refusalWords(state, info.me, 'draw')}</span>
        )}
        {teaching && state.board.length > 0 && (
          <Button size="compact-xs" variant="default" onClick={() => void send({ type: 'clearBoard' })}>
            Clear the board
          </Button>
        )}
      </div>
      <Surface
        strokes={state.board}
        draw={allowed ? (points) => void send({ type: 'draw', stroke: { points, colour } }) : null}
        colour={colour}
      />
    </div>
  );
}

/** The board's surface; shown without `draw` it is only looked at. */
export function Surface(props: {
  strokes: readonly BoardStroke[];
  draw: ((points: number[]) => void) | null;
  colour: Stroke['colour'];
}) {
  const { strokes, draw, colour } = props;
  const surface = useRef<SVGSVGElement>(null);
  const [current, setCurrent] = useState<number[]>([]);
  const at = (e: PointerEvent): [number, number] => {
    const box = surface.current!.getBoundingClientRect();
    const inside = (n: number) => Math.round(Math.min(1, Math.max(0, n)) * 10_000) / 10_000;
    return [inside((e.clientX - box.left) / box.width), inside((e.clientY - box.top) / box.height)];
  };
  const begin = (e: PointerEvent<SVGSVGElement>) => {
    if (!draw) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    setCurrent(at(e));
  };
  const move = (e: PointerEvent) => {
    if (current.length && current.length < 4000) setCurrent([...current, ...at(e)]);
  };
  const end = () => {
    if (current.length && draw) draw(current);
    setCurrent([]);
  };
  return (
    <svg
      ref={surface}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={classes.surface}
      data-draws={draw !== null}
      role="img"
      aria-label={`Board with ${countWords(strokes.length, 'stroke')}`}
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
    >
      {strokes.map((s) => (
        <path key={s.seq} d={outlineOf(s.points)} fill={`var(--${s.colour})`} />
      ))}
      {current.length > 0 && <path d={outlineOf(current)} fill={`var(--${colour})`} />}
    </svg>
  );
}

/** The outline of a pen stroke as an SVG path. */
function outlineOf(points: readonly number[]): string {
  const pairs: [number, number][] = [];
  for (let i = 0; i + 1 < points.length; i += 2) pairs.push([points[i]! * WIDTH, points[i + 1]! * HEIGHT]);
  const outline = getStroke(pairs, { size: 9, thinning: 0.4 });
  return outline.length ? `M${outline.map(([x, y]) => `${x!.toFixed(1)} ${y!.toFixed(1)}`).join('L')}Z` : '';
}
