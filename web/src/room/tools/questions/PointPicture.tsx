import { lazy, Suspense, useEffect, useMemo, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { HEIGHT, WIDTH } from '@nimble-bell/core/board';
import { countWords } from '@nimble-bell/core/calendar';
import { thirdOf, type OnPicture, type Picture } from '@nimble-bell/core/questions';
import { CLASS, onBoard, WHOLE_PAGE } from '@nimble-bell/core/room';
import { useInside, useNameOf, type Inside } from '../../live/useRoom';
import { Surface } from '../board/Surface';
import type { Pages } from '../slides/pages';
import { usePages } from '../slides/usePages';
import { PageView } from '../slides/PageView';
import classes from './questions.module.css';

const Density = lazy(() => import('./Density'));

/** From so many places on it is drawn where they are dense. */
const DENSE = 8;
/** An arrow key moves one's mark by so much of the picture. */
const STEP = 0.02;
/** How wide the layer over the picture is, in its own units. */
const UNITS = 1000;

interface Props {
  picture: Picture;
  points: readonly OnPicture[];
  own: OnPicture | null;
  /** Puts one's mark; without, the picture is only looked at. */
  point?: (at: OnPicture) => void;
}

/** A picture that a place is asked on, with the places that were given. */
export default function PointPicture({ picture, ...on }: Props) {
  return picture.of === 'board' ? (
    <OnSide side={picture.side} {...on} />
  ) : (
    <OnPage picture={picture} {...on} />
  );
}

type On = Omit<Props, 'picture'>;

const selectBoard = ({ room }: Inside) => room.board;

function OnSide({ side, ...on }: On & { side: number }) {
  const board = useInside(selectBoard, Object.is);
  const nameOf = useNameOf();
  const shown = useMemo(() => onBoard(board, CLASS, side), [board, side]);
  return (
    <Framed ratio={HEIGHT / WIDTH} {...on}>
      <Surface on={shown} nameOf={nameOf} />
    </Framed>
  );
}

type OfPage = On & { picture: Extract<Picture, { of: 'page' }> };

function OnPage(props: OfPage) {
  return <PageFramed pages={usePages()} {...props} />;
}

/** A page in its frame, from whoever has the pages. */
export function PageFramed({ pages, picture: { deck, page }, ...on }: OfPage & { pages: Pages }) {
  const [ratio, setRatio] = useState<number | null>(null);
  useEffect(() => {
    let wanted = true;
    pages.get(deck, page).then(
      (drawable) => wanted && setRatio(drawable.ratio),
      () => {},
    );
    return () => {
      wanted = false;
    };
  }, [pages, deck, page]);
  return (
    <Framed ratio={ratio ?? HEIGHT / WIDTH} {...on}>
      <PageView {...{ pages, deck, page }} frame={WHOLE_PAGE} marks={[]} colour="clay" draw={null} />
    </Framed>
  );
}

/** The picture in a frame of its own shape, and over it the places. */
export function Framed({
  ratio,
  points,
  own,
  point,
  children,
}: On & { ratio: number; children: React.ReactNode }) {
  const tall = UNITS * ratio;
  const put = (x: number, y: number) => {
    const inside = (n: number) => Math.round(Math.min(1, Math.max(0, n)) * 1000) / 1000;
    point?.({ x: inside(x), y: inside(y) });
  };
  const press = (e: PointerEvent) => {
    const { left, top, width, height } = e.currentTarget.getBoundingClientRect();
    put((e.clientX - left) / width, (e.clientY - top) / height);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!step) return;
    e.preventDefault();
    const { x, y } = own ?? { x: 0.5, y: 0.5 };
    put(x + step[0]! * STEP, y + step[1]! * STEP);
  };
  return (
    <div className={classes.picture} style={{ aspectRatio: 1 / ratio }} data-testid="pointed">
      {children}
      <div
        className={classes.over}
        data-points={point !== undefined}
        onPointerDown={press}
        role="group"
        aria-label={wordsOf({ points, own, point })}
        {...(point ? { tabIndex: 0, onKeyDown } : {})}
      >
        <svg viewBox={`0 0 ${UNITS} ${tall}`} aria-hidden>
          {points.length >= DENSE && (
            <Suspense>
              <Density points={points} size={[UNITS, tall]} />
            </Suspense>
          )}
          {points.map(({ x, y }, i) => (
            <circle key={i} cx={x * UNITS} cy={y * tall} r={9} />
          ))}
          {own && (
            <path
              d={`M${own.x * UNITS - 26} ${own.y * tall}h52M${own.x * UNITS} ${own.y * tall - 26}v52`}
              className={classes.mine}
            />
          )}
        </svg>
      </div>
    </div>
  );
}

function wordsOf({ points, own, point }: On): string {
  if (point)
    return own
      ? `Your mark is ${thirdOf(own).toLowerCase()}; arrows move it`
      : 'Where on the picture: press it, or put your mark by the arrows';
  return `The picture with ${countWords(points.length, 'place')} on it`;
}
