import { VisuallyHidden } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { framed, outlineOf, WIDTH, type At } from '@nimble-bell/core/board';
import type { Stroke } from '@nimble-bell/core/api';
import type { Deck, Frame, PageMark } from '@nimble-bell/core/room';
import type { Drawable, Pages } from './pages';
import classes from './slides.module.css';

/** A stroke has so many numbers at most. */
const MOST_NUMBERS = 4000;

interface Props {
  pages: Pages;
  deck: Deck;
  page: number;
  frame: Frame;
  marks: readonly PageMark[];
  colour: Stroke['colour'];
  /** A stroke; null where one only looks. */
  draw: ((points: number[]) => void) | null;
  /** Where somebody points, in fractions of the page. */
  pointed?: { x: number; y: number; name: string } | null;
  /** One points with this hand, in fractions of the page. */
  point?: (x: number, y: number) => void;
}

/** A page of a deck at the size of its window, with what is marked on it. */
export function PageView({ pages, deck, page, frame, marks, colour, draw, pointed = null, point }: Props) {
  const { ref, width, height } = useElementSize();
  const { drawable, fault } = usePage(pages, deck, page);
  const at = drawable && width > 0 ? framed(drawable.ratio, frame, { width, height }) : null;
  return (
    <div ref={ref} className={classes.window} data-testid="page" data-page={page}>
      {drawable && <Drawn drawable={drawable} size={{ width, height }} at={at} page={page} />}
      {drawable && at && <Marked {...{ at, marks, colour, draw, point }} ratio={drawable.ratio} />}
      {drawable && at && pointed && (
        <span
          className={classes.pointed}
          style={{
            left: at.left + pointed.x * at.width,
            top: at.top + pointed.y * at.width * drawable.ratio,
          }}
        >
          <i />
          {pointed.name}
        </span>
      )}
      {fault && (
        <p className={classes.fault} role="alert">
          {fault}
        </p>
      )}
      {drawable && (
        <VisuallyHidden>
          {`Page ${page} of ${deck.pages}. ${drawable.text || 'No text can be read on it.'}`}
          {marks.length > 0 && ` ${marks.length} marks on it.`}
        </VisuallyHidden>
      )}
    </div>
  );
}

type MarkedProps = Pick<Props, 'marks' | 'colour' | 'draw'> & {
  at: At;
  ratio: number;
  point: Props['point'] | undefined;
};

/** What is marked on a page, and the hand that marks it or points. */
function Marked({ at, ratio, marks, colour, draw, point }: MarkedProps) {
  const [line, setLine] = useState<number[]>([]);
  const surface = useRef<SVGSVGElement>(null);
  const tall = WIDTH * ratio;
  const where = (e: PointerEvent): [number, number] => {
    const box = surface.current!.getBoundingClientRect();
    const inside = (n: number) => Math.round(Math.min(1, Math.max(0, n)) * 10_000) / 10_000;
    return [inside((e.clientX - box.left) / box.width), inside((e.clientY - box.top) / box.height)];
  };
  const ends = () => {
    if (line.length && draw) draw(line);
    setLine([]);
  };
  return (
    <svg
      ref={surface}
      className={classes.marks}
      style={{ left: at.left, top: at.top, width: at.width, height: at.width * ratio }}
      viewBox={`0 0 ${WIDTH} ${tall}`}
      data-draws={draw !== null}
      aria-hidden
      onPointerDown={(e) => {
        if (!draw) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        setLine(where(e));
      }}
      onPointerMove={(e) => {
        if (line.length && line.length < MOST_NUMBERS) setLine([...line, ...where(e)]);
        else if (!line.length) point?.(...where(e));
      }}
      onPointerUp={ends}
      onPointerCancel={ends}
    >
      {marks.map((m) => (
        <path key={m.seq} d={outlineOf(m, tall)} className={classes.mark} data-pen={m.colour} />
      ))}
      {line.length > 0 && (
        <path d={outlineOf({ points: line }, tall)} className={classes.mark} data-pen={colour} />
      )}
    </svg>
  );
}

/** A page, once it is there; the one before stays until then. */
function usePage(pages: Pages, deck: Deck, page: number) {
  const [shown, setShown] = useState<{ key: string; drawable: Drawable | null; fault: string }>({
    ...{ key: '', drawable: null, fault: '' },
  });
  const key = `${deck.id} ${page}`;
  const { id, kind } = deck;
  useEffect(() => {
    let wanted = true;
    pages.get({ id, kind }, page).then(
      (drawable) => wanted && setShown({ key, drawable, fault: '' }),
      (error: Error) => wanted && setShown({ key, drawable: null, fault: error.message }),
    );
    return () => {
      wanted = false;
    };
  }, [pages, id, kind, page, key]);
  return shown;
}

interface DrawnProps {
  drawable: Drawable;
  size: { width: number; height: number };
  at: { width: number; left: number; top: number } | null;
  page: number;
}

/** The part of a page that is in its window, in the pixels that the screen has; drawn beside, then put in its place. */
function Drawn({ drawable, size, at, page }: DrawnProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height } = size;
  const [left, top, wide] = at ? [at.left, at.top, at.width] : [0, 0, 0];
  useEffect(() => {
    const shown = canvas.current;
    if (!shown || !width || !height || !wide) return;
    const fine = window.devicePixelRatio || 1;
    const beside = document.createElement('canvas');
    beside.width = Math.round(width * fine);
    beside.height = Math.round(height * fine);
    const { done, cancel } = drawable.draw(beside, {
      width: wide * fine,
      left: left * fine,
      top: top * fine,
    });
    let wanted = true;
    done.then(
      () => {
        if (!wanted) return;
        shown.width = beside.width;
        shown.height = beside.height;
        // What draws it paints the canvas around the page as well.
        const box = [left * fine, top * fine, wide * fine, wide * drawable.ratio * fine] as const;
        const context = shown.getContext('2d')!;
        context.rect(...box);
        context.clip();
        context.drawImage(beside, 0, 0);
        shown.dataset.drawn = String(page);
      },
      () => {},
    );
    return () => {
      wanted = false;
      cancel();
    };
  }, [drawable, width, height, left, top, wide, page]);
  return <canvas ref={canvas} className={classes.canvas} aria-hidden />;
}
