import { Button } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';

// Seldom, and with a dialog.
const TryDialog = lazy(() => import('./TryDialog'));

/** The way to a session's room with a made-up class, before the real one comes. */
export default function TryIt({ session, students }: { session: string; students: number }) {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button variant="default" onClick={() => setAsking(true)}>
        Try it
      </Button>
      {asking && (
        <Suspense>
          <TryDialog session={session} students={students} close={() => setAsking(false)} />
        </Suspense>
      )}
    </>
  );
}
