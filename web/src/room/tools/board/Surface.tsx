import { VisuallyHidden } from '@mantine/core';
import { memo, useMemo, useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { boxOf, HEIGHT, WIDTH } from '@nimble-bell/core/board';
import type { OnBoard } from '@nimble-bell/core/room';
import { boardLines, boardWords } from './describe';
import { Drawing, Marks, Ruling } from './Marks';
import type { Hand, Point } from './useHand';
import type { Nearness } from './useNearness';
import type { OtherPen } from './usePens';
import classes from './board.module.css';

interface Props {
  on: OnBoard;
  nameOf: (member: string) => string;
  /** Whoever draws on it; without, it is only looked at. */
  hand?: Hand | null;
  /** Where others draw just now. */
  pens?: readonly OtherPen[];
  /** How near one is to it; without, it is seen whole. */
  nearness?: Nearness;
}

/** The board's surface. */
export function Surface({ on, nameOf, hand = null, pens = [], nearness }: Props) {
  const surface = useRef<SVGSVGElement>(null);
  const fingers = nearness?.fingers;
  /** Where the pen is, as fractions of the board, which is centred in its surface. */
  const at = (e: PointerEvent): Point => {
    const { x, y } = new DOMPoint(e.clientX, e.clientY).matrixTransform(
      surface.current!.getScreenCTM()!.inverse(),
    );
    const inside = (n: number) => Math.round(Math.min(1, Math.max(0, n)) * 10_000) / 10_000;
    return [inside(x / WIDTH), inside(y / HEIGHT)];
  };
  const begin = (e: PointerEvent<HTMLElement>) => {
    if (!hand) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    if (fingers?.down(e)) hand.drop();
    else hand.down(at(e), e);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    if (hand?.key(e.key)) e.preventDefault();
  };
  const words = useMemo(() => boardWords(on), [on]);
  const chooses = hand?.tool === 'move';
  const end = (e: PointerEvent) => {
    fingers?.up(e);
    hand?.up();
  };
  const sheet = (
    <div
      className={classes.surface}
      data-draws={hand !== null}
      data-tool={hand?.tool}
      {...(chooses
        ? { tabIndex: 0, onKeyDown, role: 'group', 'aria-label': 'What is chosen moves by the arrows' }
        : {})}
      onPointerDown={begin}
      onPointerMove={(e) => fingers?.move(e) || hand?.move(at(e), e)}
      onPointerUp={end}
      onPointerCancel={end}
    >
      <svg ref={surface} viewBox={VIEW} className={classes.drawn} role="img" aria-label={words}>
        <Ruling ground={on.ground} />
        <Marks marks={on.marks} instead={hand?.instead} />
      </svg>
      <Described on={on} nameOf={nameOf} />
      {hand && <Over hand={hand} />}
      {pens.length > 0 && <Others pens={pens} />}
    </div>
  );
  return nearness ? <Near nearness={nearness}>{sheet}</Near> : sheet;
}

/** A sheet in its window: where it is larger, it is moved about on in it. */
function Near({ nearness, children }: { nearness: Nearness; children: ReactNode }) {
  const { near, pane, sheet } = nearness;
  const large =
    near > 1
      ? { tabIndex: 0, role: 'group', 'aria-label': 'The board from nearer; arrows move about on it' }
      : {};
  return (
    <div ref={pane} className={classes.around} data-large={near > 1} {...large}>
      <div
        ref={sheet}
        className={classes.nearer}
        style={{ width: `${near * 100}%`, height: `${near * 100}%` }}
      >
        {children}
      </div>
    </div>
  );
}

const VIEW = `0 0 ${WIDTH} ${HEIGHT}`;

/** What is on the board, in words: made anew when that is another. */
const Described = memo(function Described({ on, nameOf }: Pick<Props, 'on' | 'nameOf'>) {
  return (
    <VisuallyHidden component="ul" aria-label="What is on the board">
      {boardLines(on, nameOf).map((line, i) => (
        <li key={i}>{line}</li>
      ))}
    </VisuallyHidden>
  );
});

/** What the hand does just now, over what is drawn. */
function Over({ hand }: { hand: Hand }) {
  const { making, chosen, instead, frame } = hand;
  return (
    <svg viewBox={VIEW} className={classes.pencil} aria-hidden>
      {making && <Drawing mark={making} />}
      {chosen.map((m) => {
        const { left, right, top, bottom } = boxOf(instead.get(m.seq) ?? m);
        return (
          <rect
            key={m.seq}
            className={classes.chosen}
            x={left - 12}
            y={top - 12}
            width={right - left + 24}
            height={bottom - top + 24}
          />
        );
      })}
      {frame && (
        <rect
          className={classes.chosen}
          x={Math.min(frame.from[0], frame.to[0]) * WIDTH}
          y={Math.min(frame.from[1], frame.to[1]) * HEIGHT}
          width={Math.abs(frame.to[0] - frame.from[0]) * WIDTH}
          height={Math.abs(frame.to[1] - frame.from[1]) * HEIGHT}
        />
      )}
    </svg>
  );
}

/** Whose pens are where. */
const Others = ({ pens }: { pens: readonly OtherPen[] }) => (
  <svg viewBox={VIEW} className={classes.pencil} aria-hidden>
    {pens.map(({ member, name, x, y }) => (
      <g key={member} transform={`translate(${x * WIDTH} ${y * HEIGHT})`}>
        <circle r={9} className={classes.otherPen} />
        <text x={16} y={10} className={classes.penName}>
          {name}
        </text>
      </g>
    ))}
  </svg>
);
