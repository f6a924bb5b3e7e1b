import { lazy, Suspense } from 'react';
import { Loader } from '@mantine/core';

// Not every class has any.
const TablesStage = lazy(() => import('./TablesStage'));

/** The small tables of the class. */
export const Tables = () => (
  <Suspense fallback={<Loader m={40} aria-label="Opening the tables" />}>
    <TablesStage />
  </Suspense>
);
