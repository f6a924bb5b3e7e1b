import { lazy, Suspense } from 'react';
import { Loader } from '@mantine/core';

// Its editor is large, and not every class writes any.
const NotesEditor = lazy(() => import('./NotesEditor'));

/** The class's notes, written together. */
export const Notes = () => (
  <Suspense fallback={<Loader m={40} aria-label="Opening the notes" />}>
    <NotesEditor />
  </Suspense>
);
