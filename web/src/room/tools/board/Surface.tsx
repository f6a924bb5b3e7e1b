import { memo, useRef, useState, type PointerEvent } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import type { BoardStroke } from '@nimble-bell/core/room';
import { HEIGHT, outlineOf, outlineOnce, WIDTH } from './outline';
import classes from './board.module.css';

const MOST_NUMBERS = 4000;

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
    if (current.length && current.length < MOST_NUMBERS) setCurrent([...current, ...at(e)]);
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
      <Drawn strokes={strokes} />
      {current.length > 0 && <path d={outlineOf(current)} fill={`var(--${colour})`} />}
    </svg>
  );
}

/** What is on the board already: the pen moving over it draws none of it again. */
const Drawn = memo(function Drawn({ strokes }: { strokes: readonly BoardStroke[] }) {
  return strokes.map((s) => <Drawing key={s.seq} stroke={s} />);
});

const Drawing = memo(function Drawing({ stroke }: { stroke: BoardStroke }) {
  return <path d={outlineOnce(stroke)} fill={`var(--${stroke.colour})`} />;
});
