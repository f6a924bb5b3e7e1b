import { useEffect, useState } from 'react';
import { leafsTo, placeOf, slidesAt, type PageMark, type Shown } from '@nimble-bell/core/room';
import { nameFrom, useInside, useRoom, type Inside } from '../../live/useRoom';
import { usePages } from './usePages';

const selectShown = ({ room, info }: Inside) => slidesAt(room, placeOf(room, info.me.member))!;
const sameShown = (a: Shown, b: Shown) => a === b;
const selectLeafs = ({ room, info }: Inside) => leafsTo(room, info.me);
const selectMarks = ({ room, info }: Inside) => {
  const place = placeOf(room, info.me.member);
  return room.slides.marks.filter((m) => m.place === place);
};
const sameMarks = (a: readonly PageMark[], b: readonly PageMark[]) =>
  a.length === b.length && a.at(-1)?.seq === b.at(-1)?.seq && a[0]?.seq === b[0]?.seq;

/** What lies open before the class, its pages, and what is marked on them. */
export function useShown() {
  const shown = useInside(selectShown, sameShown);
  const leafs = useInside(selectLeafs);
  const marks = useInside(selectMarks, sameMarks);
  const pages = usePages();
  const next = leafs.find((p) => p > shown.page);
  // The next one is there before it is needed.
  useEffect(() => {
    if (next) void pages.get(shown.deck, next).catch(() => {});
  }, [pages, shown.deck, next]);
  return {
    ...{ shown, pages, leafs },
    marksOn: (page: number) => marks.filter((m) => m.deck === shown.deck.id && m.page === page),
  };
}

/** A pointer that rests is seen for so long, ms. */
const SEEN_MS = 2500;

/** Where somebody points to at this moment. */
export function usePointed() {
  const { connection } = useRoom();
  const [pointed, setPointed] = useState<{ x: number; y: number; name: string } | null>(null);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = connection.onSignal((signal) => {
      if (signal.what !== 'pointer' || signal.on) return;
      const { state, info } = connection.view;
      const name = state && info ? nameFrom({ room: state, info }, signal.member) : '';
      setPointed({ x: signal.x, y: signal.y, name });
      clearTimeout(timer);
      timer = setTimeout(() => setPointed(null), SEEN_MS);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [connection]);
  return pointed;
}
