import { lazy, Suspense, type ComponentProps } from 'react';

// Not every class is asked for a place.
const PointPicture = lazy(() => import('./PointPicture'));

/** A picture that a place is asked on. */
export const Pointing = (props: ComponentProps<typeof PointPicture>) => (
  <Suspense>
    <PointPicture {...props} />
  </Suspense>
);
