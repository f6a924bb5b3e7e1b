import { memo } from 'react';
import {
  groundPath,
  LETTERS,
  lineAt,
  linesOf,
  outlineOnce,
  pictureAt,
  SHAPE_LINE,
  shapePath,
  slipBox,
} from '@nimble-bell/core/board';
import type { Ground, Mark, PutText } from '@nimble-bell/core/room';
import classes from './board.module.css';

interface Props {
  marks: readonly Mark[];
  /** Marks that are shown otherwise than the board has them, by number; null where they are not shown. */
  instead?: ReadonlyMap<number, Mark | null> | undefined;
}

const NONE: ReadonlyMap<number, Mark | null> = new Map();

/** What is on the board: a pen that moves over it draws none of it again. */
export const Marks = memo(function Marks({ marks, instead = NONE }: Props) {
  if (!instead.size) return marks.map((m) => <Drawing key={m.seq} mark={m} />);
  return marks.map((m) => {
    const shown = instead.has(m.seq) ? instead.get(m.seq)! : m;
    return shown && <Drawing key={m.seq} mark={shown} />;
  });
});

/** One mark, drawn once as long as it is the same. */
export const Drawing = memo(function Drawing({ mark }: { mark: Mark }) {
  if (mark.kind === 'picture') return <image {...pictureAt(mark)} preserveAspectRatio="none" />;
  const ink = `var(--${mark.colour})`;
  if (mark.kind === 'stroke') return <path d={outlineOnce(mark)} fill={ink} />;
  if (mark.kind === 'shape')
    return (
      <path
        d={shapePath(mark)}
        fill="none"
        stroke={ink}
        strokeWidth={SHAPE_LINE}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    );
  return (
    <>
      {mark.slip && <rect {...slipBox(mark)} className={classes.slip} />}
      <Lettered text={mark} />
    </>
  );
});

const Lettered = ({ text }: { text: PutText }) =>
  linesOf(text.text).map((line, i) => {
    const [x, y] = lineAt(text.at, i);
    return (
      <text
        key={i}
        x={x}
        y={y}
        fontSize={LETTERS}
        fill={text.slip ? SLIP_INKS[text.colour] : `var(--${text.colour})`}
        className={classes.lettered}
      >
        {line}
      </text>
    );
  });

/** A slip is paper in the dark too. */
const SLIP_INKS: Record<PutText['colour'], string> = {
  ink: '#22302b',
  pine: '#1e5244',
  brass: '#7a530a',
  clay: '#9a3a24',
  tide: '#255a76',
};

/** What a side is ruled with. */
export const Ruling = memo(function Ruling({ ground }: { ground: Ground }) {
  const d = groundPath(ground);
  return d ? <path d={d} className={classes.ruling} /> : null;
});
