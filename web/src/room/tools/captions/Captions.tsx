import { lazy, Suspense } from 'react';
import { useInside, type Inside } from '../../live/useRoom';
import { useKeptCaptions } from './kept';

// Where somebody writes any.
const CaptionLines = lazy(() => import('./CaptionLines'));
const CaptionDesk = lazy(() => import('./CaptionDesk'));

const select = ({ room, info }: Inside) => ({
  any: room.captions.lines.length > 0 || room.captions.writers.length > 0 || room.captions.listens,
  writes: room.captions.writers.includes(info.me.member),
});

/** What is said aloud, to be read, above or below the stage; and where one writes it who was asked to. */
export function Captions({ at }: { at: 'above' | 'below' }) {
  const { any, writes } = useInside(select);
  const { place } = useKeptCaptions();
  if (!any) return null;
  return (
    <Suspense>
      {place === at && <CaptionLines />}
      {writes && at === 'below' && <CaptionDesk />}
    </Suspense>
  );
}
