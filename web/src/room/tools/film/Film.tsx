import { lazy, Suspense } from 'react';
import { Loader } from '@mantine/core';

// Not every class watches one.
const FilmStage = lazy(() => import('./FilmStage'));

/** What the class watches together. */
export const Film = () => (
  <Suspense fallback={<Loader m={40} aria-label="Opening the film" />}>
    <FilmStage />
  </Suspense>
);
