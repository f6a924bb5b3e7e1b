import { lazy, Suspense } from 'react';
import type { ReplayProps } from '../replay';

const FilmThen = lazy(() => import('./FilmThen'));

/** What the class watched together at that moment, and an address that was open for all: nothing, most of the time. */
export function FilmReplay(props: ReplayProps) {
  const { on, card } = props.room.film;
  if (!on && !card) return null;
  return (
    <Suspense>
      <FilmThen {...props} />
    </Suspense>
  );
}
