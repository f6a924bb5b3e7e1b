import { lazy, Suspense } from 'react';

// Where somebody looks at them.
const AllFaces = lazy(() => import('./AllFaces'));

/** Everybody's picture who is where one is. */
export const Faces = () => (
  <Suspense>
    <AllFaces />
  </Suspense>
);
