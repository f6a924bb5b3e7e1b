import { lazy, Suspense } from 'react';
import { CLASS, slidesAt } from '@nimble-bell/core/room';
import type { ReplayProps } from '../replay';

// What draws pages is large, and not every class showed any.
const PagesReplay = lazy(() => import('./Replay'));

/** The pages that were shown; nothing where none lay open. */
export function SlidesReplay({ room, pages }: ReplayProps) {
  if (!slidesAt(room, CLASS)) return null;
  return (
    <Suspense>
      <PagesReplay room={room} at={pages} />
    </Suspense>
  );
}
