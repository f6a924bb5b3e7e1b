import { Button } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import type { WriteToProps } from './WriteTo';

const WriteTo = lazy(() => import('./WriteTo'));

/** The way to write to some of the class. */
export function WriteButton({ label, ...of }: WriteToProps & { label: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button size="compact-sm" variant="default" onClick={() => setOpen(true)}>
        {label}
      </Button>
      {open && (
        <Suspense>
          <WriteTo {...of} close={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
