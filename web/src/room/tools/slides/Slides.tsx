import { Loader } from '@mantine/core';
import { lazy, Suspense } from 'react';
import { placeOf, slidesAt } from '@nimble-bell/core/room';
import { useInside, useTeaching, type Inside } from '../../live/useRoom';
import stage from '../../frame/stage.module.css';

// What draws pages is large, and not every class shows any.
const Conducted = lazy(() => import('./Conducted'));
const Followed = lazy(() => import('./Followed'));
const Chooser = lazy(() => import('./Chooser'));

const select = ({ room, info }: Inside) => slidesAt(room, placeOf(room, info.me.member)) !== null;

/** Pages that the class looks at together: turned by whoever teaches, followed by all. */
export function Slides() {
  const shown = useInside(select);
  const teaching = useTeaching();
  if (!shown && !teaching)
    return (
      <div className={stage.stageEmpty}>
        <p>No pages are shown.</p>
      </div>
    );
  const Shown = !shown ? Chooser : teaching ? Conducted : Followed;
  return (
    <Suspense fallback={<Loader m={40} color="gray" aria-label="Opening the pages" />}>
      <Shown />
    </Suspense>
  );
}
