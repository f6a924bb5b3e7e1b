import { Loader } from '@mantine/core';
import { lazy, Suspense } from 'react';

// Not every class draws.
const BoardStage = lazy(() => import('./BoardStage'));

/** Boards that are drawn on. */
export const Board = () => (
  <Suspense fallback={<Loader m={40} aria-label="Opening the board" />}>
    <BoardStage />
  </Suspense>
);
