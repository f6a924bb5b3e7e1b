import { useRef, useState, type PointerEvent } from 'react';
import { marksWithin, touchedAt } from '@nimble-bell/core/board';
import { keptOn, moved, type Mark } from '@nimble-bell/core/room';
import type { Stroke } from '@nimble-bell/core/api';
import type { Acts } from './useActs';

export const PENS = ['pen', 'broad'] as const;
export const FIGURES = ['line', 'arrow', 'box', 'oval'] as const;
export type Tool = (typeof PENS)[number] | (typeof FIGURES)[number] | 'move' | 'wipe';

export type Point = [x: number, y: number];

const MOST_NUMBERS = 4000;
/** A figure is at least so large, in fractions of the board. */
const LEAST = 0.005;
/** An arrow key moves by so much. */
const KEY_STEP = 0.01;

/** What a hand does just now. */
type Doing =
  | { what: 'draws'; points: number[]; pressure: number[] | null }
  | { what: 'spans'; from: Point; to: Point }
  | { what: 'moves'; from: Point; to: Point }
  | { what: 'frames'; from: Point; to: Point }
  | { what: 'wipes'; gone: readonly Mark[] };

export interface Hand {
  tool: Tool;
  /** What is not on the board yet: the mark that is being made. */
  making: Mark | null;
  /** Marks that are not where the board has them: those that are moved, and those that are wiped. */
  instead: ReadonlyMap<number, Mark | null>;
  chosen: readonly Mark[];
  /** The one that is chosen next where one has no pointer; null where there is none. */
  next: Mark | null;
  frame: { from: Point; to: Point } | null;
  choose: (marks: readonly Mark[]) => void;
  down: (at: Point, e: PointerEvent) => void;
  move: (at: Point, e: PointerEvent) => void;
  up: () => void;
  /** What the hand was about is nothing. */
  drop: () => void;
  key: (key: string) => boolean;
}

interface Of {
  tool: Tool;
  colour: Stroke['colour'];
  /** The marks that one may move and wipe. */
  mine: readonly Mark[];
  acts: Acts;
  /** One's pen is here. */
  at: (point: Point) => void;
}

const NOBODY: readonly Mark[] = [];
const NOWHERE = { seq: 0, by: '', place: '', side: 1 };
const isSpan = (tool: Tool): tool is (typeof FIGURES)[number] => (FIGURES as readonly Tool[]).includes(tool);

/** A hand over a board, with a tool: what it draws, spans, moves and wipes. Sent when it is lifted. */
export function useHand({ tool, colour, mine, acts, at: tell }: Of): Hand {
  const [doing, setDoing] = useState<Doing | null>(null);
  const [wanted, setWanted] = useState<{ tool: Tool; seqs: readonly number[] }>({ tool, seqs: [] });
  // Once somebody draws with a pen, the palm beside it is no finger.
  const pen = useRef(false);
  const seqs = wanted.tool === tool ? wanted.seqs : [];
  const chosen = seqs.length ? mine.filter((m) => seqs.includes(m.seq)) : NOBODY;
  const choose = (marks: readonly Mark[]) => setWanted({ tool, seqs: marks.map((m) => m.seq) });
  const shifted = (x: number, y: number) => {
    const by = keptOn(chosen, x, y);
    if (by.x || by.y) void acts.shift(chosen, by.x, by.y);
  };

  const down = (at: Point, e: PointerEvent) => {
    if (e.pointerType === 'pen') pen.current = true;
    if (!e.isPrimary || (e.pointerType === 'touch' && pen.current)) return;
    const under = tool === 'move' ? touchedAt(mine, at) : null;
    if (tool === 'move' && !(under && seqs.includes(under.seq))) choose(under ? [under] : []);
    setDoing(begun(tool, at, { under, mine, pressure: e.pointerType === 'pen' ? e.pressure : null }));
  };
  const move = (at: Point, e: PointerEvent) => {
    if (!doing || !e.isPrimary) return;
    tell(at);
    setDoing(goneOn(doing, at, { mine, pressure: e.pressure }));
  };
  const up = () => {
    setDoing(null);
    if (!doing) return;
    if (doing.what === 'draws') return void acts.draw(strokeOf(doing, tool, colour));
    if (doing.what === 'wipes') return void (doing.gone.length && acts.takeOff(doing.gone));
    const { from, to } = doing;
    if (doing.what === 'frames') return choose(marksWithin(mine, from, to));
    const [x, y] = [to[0] - from[0], to[1] - from[1]];
    if (doing.what === 'moves') return shifted(x, y);
    if (isSpan(tool) && Math.hypot(x, y) > LEAST) void acts.putShape({ shape: tool, from, to, colour });
  };
  const key = (name: string): boolean => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[name];
    if (!chosen.length) return false;
    if (step) shifted(step[0]! * KEY_STEP, step[1]! * KEY_STEP);
    else if (name === 'Delete' || name === 'Backspace') void acts.takeOff(chosen);
    else return false;
    return true;
  };
  return {
    ...{ tool, chosen, choose, down, move, up, key },
    drop: () => setDoing(null),
    next: mine[(mine.findIndex((m) => m.seq === seqs[0]) + 1) % Math.max(1, mine.length)] ?? null,
    making: makingOf(doing, tool, colour),
    instead: insteadOf(doing, chosen),
    frame: doing?.what === 'frames' ? doing : null,
  };
}

const wiped = (mine: readonly Mark[], gone: readonly Mark[], at: Point): Doing => {
  const left = mine.filter((m) => !gone.includes(m));
  const under = touchedAt(left, at);
  return { what: 'wipes', gone: under ? [...gone, under] : gone };
};

interface With {
  mine: readonly Mark[];
  pressure: number | null;
}

/** What a hand begins that is put down here with a tool. */
function begun(tool: Tool, at: Point, { under, mine, pressure }: With & { under: Mark | null }): Doing {
  if (tool === 'move') return { what: under ? 'moves' : 'frames', from: at, to: at };
  if (tool === 'wipe') return wiped(mine, [], at);
  if (isSpan(tool)) return { what: 'spans', from: at, to: at };
  return { what: 'draws', points: at, pressure: pressure === null ? null : [pressure] };
}

/** The same, the hand being here by now. */
function goneOn(doing: Doing, at: Point, { mine, pressure }: With): Doing {
  if (doing.what === 'wipes') return wiped(mine, doing.gone, at);
  if (doing.what !== 'draws') return { ...doing, to: at };
  if (doing.points.length >= MOST_NUMBERS) return doing;
  const felt = Math.round((pressure ?? 0) * 100) / 100;
  return {
    ...doing,
    points: [...doing.points, ...at],
    pressure: doing.pressure && [...doing.pressure, felt],
  };
}

function strokeOf(
  { points, pressure }: Extract<Doing, { what: 'draws' }>,
  tool: Tool,
  colour: Stroke['colour'],
): Stroke {
  return { points, colour, ...(pressure ? { pressure } : {}), ...(tool === 'broad' ? { broad: true } : {}) };
}

function makingOf(doing: Doing | null, tool: Tool, colour: Stroke['colour']): Mark | null {
  if (doing?.what === 'draws') return { kind: 'stroke', ...NOWHERE, ...strokeOf(doing, tool, colour) };
  if (doing?.what === 'spans' && isSpan(tool))
    return { kind: 'shape', ...NOWHERE, shape: tool, from: doing.from, to: doing.to, colour };
  return null;
}

/** The same each time: what is drawn is not drawn again for it. */
const NONE: ReadonlyMap<number, Mark | null> = new Map();

function insteadOf(doing: Doing | null, chosen: readonly Mark[]): ReadonlyMap<number, Mark | null> {
  if (doing?.what === 'wipes') return new Map(doing.gone.map((m) => [m.seq, null]));
  if (doing?.what !== 'moves') return NONE;
  const { from, to } = doing;
  const by = keptOn(chosen, to[0] - from[0], to[1] - from[1]);
  return new Map(chosen.map((m) => [m.seq, moved(m, by.x, by.y)]));
}
