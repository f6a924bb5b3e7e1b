import { Button, Text } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';

const DeviceCheck = lazy(() => import('./DeviceCheck'));

/** The way to try microphone and camera, while one waits or before one enters. */
export function TryDevices() {
  const [trying, setTrying] = useState(false);
  if (!trying)
    return (
      <Button variant="subtle" onClick={() => setTrying(true)}>
        Try camera and microphone
      </Button>
    );
  return (
    <Suspense fallback={<Text size="sm">A moment</Text>}>
      <DeviceCheck />
    </Suspense>
  );
}
