import { VisuallyHidden } from '@mantine/core';
import { memo, useRef, useState, type PointerEvent } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import { HEIGHT, LETTERS, lineAt, linesOf, outlineOf, outlineOnce, WIDTH } from '@nimble-bell/core/board';
import type { BoardStroke, OnBoard, PutText } from '@nimble-bell/core/room';
import { boardLines, boardWords } from './describe';
import classes from './board.module.css';

const MOST_NUMBERS = 4000;

/** The board's surface; shown without `draw` it is only looked at. */
export function Surface(props: {
  on: OnBoard;
  nameOf: (member: string) => string;
  draw: ((points: number[]) => void) | null;
  colour: Stroke['colour'];
}) {
  const { on, nameOf, draw, colour } = props;
  const surface = useRef<SVGSVGElement>(null);
  const [current, setCurrent] = useState<number[]>([]);
  /** Where the pen is, as fractions of the board, which is centred in its surface. */
  const at = (e: PointerEvent): [number, number] => {
    const { x, y } = new DOMPoint(e.clientX, e.clientY).matrixTransform(
      surface.current!.getScreenCTM()!.inverse(),
    );
    const inside = (n: number) => Math.round(Math.min(1, Math.max(0, n)) * 10_000) / 10_000;
    return [inside(x / WIDTH), inside(y / HEIGHT)];
  };
  const begin = (e: PointerEvent<HTMLElement>) => {
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
    <div
      className={classes.surface}
      data-draws={draw !== null}
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
    >
      <svg ref={surface} viewBox={VIEW} className={classes.drawn} role="img" aria-label={boardWords(on)}>
        <Drawn strokes={on.strokes} />
        {on.texts.map((t) => (
          <Lettered key={t.seq} text={t} />
        ))}
      </svg>
      <VisuallyHidden component="ul" aria-label="What is on the board">
        {boardLines(on, nameOf).map((line, i) => (
          <li key={i}>{line}</li>
        ))}
      </VisuallyHidden>
      <svg viewBox={VIEW} className={classes.pencil} aria-hidden>
        {current.length > 0 && <path d={outlineOf(current)} fill={`var(--${colour})`} />}
      </svg>
    </div>
  );
}

const VIEW = `0 0 ${WIDTH} ${HEIGHT}`;

/** What is on the board already: the pen moving over it draws none of it again. */
const Drawn = memo(function Drawn({ strokes }: { strokes: readonly BoardStroke[] }) {
  return strokes.map((s) => <Drawing key={s.seq} stroke={s} />);
});

const Drawing = memo(function Drawing({ stroke }: { stroke: BoardStroke }) {
  return <path d={outlineOnce(stroke)} fill={`var(--${stroke.colour})`} />;
});

const Lettered = memo(function Lettered({ text }: { text: PutText }) {
  return linesOf(text.text).map((line, i) => {
    const [x, y] = lineAt(text.at, i);
    return (
      <text
        key={i}
        x={x}
        y={y}
        fontSize={LETTERS}
        fill={`var(--${text.colour})`}
        className={classes.lettered}
      >
        {line}
      </text>
    );
  });
});
