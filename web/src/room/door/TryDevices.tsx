import { Button, Switch, Text } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import { arrival } from './arrival';

const DeviceCheck = lazy(() => import('./DeviceCheck'));

/** The way to try microphone and camera, while one waits or before one enters; or to say that one only listens. */
export function TryDevices({ at = false }: { at?: boolean }) {
  const [trying, setTrying] = useState(at);
  const { listens } = arrival.use();
  return (
    <>
      <Switch
        label="I only listen: nobody asks me to speak"
        checked={listens}
        onChange={(e) => arrival.set({ ...arrival.get(), listens: e.currentTarget.checked })}
      />
      {trying ? (
        <Suspense fallback={<Text size="sm">A moment</Text>}>
          <DeviceCheck />
        </Suspense>
      ) : (
        <Button variant="subtle" onClick={() => setTrying(true)}>
          Try camera and microphone
        </Button>
      )}
    </>
  );
}
