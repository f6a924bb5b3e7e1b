import { useEffect, useRef } from 'react';

/** The keys of the watch page, each with what it does. */
export const FILM_KEYS = {
  ' ': 'Play, and stand still',
  ArrowLeft: 'Ten seconds back',
  ArrowRight: 'Ten seconds on',
  ',': 'Slower',
  '.': 'Faster',
  '[': 'The chapter before',
  ']': 'The next chapter',
  c: 'Captions, or none',
  s: 'Pass over silences, or not',
  v: 'What is large',
  w: 'Whole window, and back',
  n: 'A note at this moment',
  '?': 'These keys',
} as const;
export type FilmKey = keyof typeof FILM_KEYS;
export type FilmActs = Record<FilmKey, () => void>;

/** How a key is called. */
export const keyWords = (key: string): string =>
  ({ ' ': 'Space', ArrowLeft: '←', ArrowRight: '→' })[key] ?? key.toUpperCase();

/** Keys that act wherever nothing else takes them. */
export function useFilmKeys(acts: FilmActs) {
  const latest = useRef(acts);
  useEffect(() => {
    latest.current = acts;
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const within = (e.target as Element).closest?.(
        'input, textarea, select, button, a, [role=slider], [role=dialog], [role=radiogroup]',
      );
      const act = latest.current[e.key as FilmKey];
      if (within || !act || e.ctrlKey || e.metaKey || e.altKey) return;
      act();
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
