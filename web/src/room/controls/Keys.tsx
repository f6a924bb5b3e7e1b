import { Modal } from '@mantine/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import { useWays } from '../../ways/useWays';
import { useTeaching } from '../live/useRoom';
import { Begin } from '../../ui/Begin';
import { useRoomKeys } from './useRoomKeys';

// The list comes when it is asked for.
const KeyTable = lazy(() => import('../../ways/KeyTable').then((m) => ({ default: m.KeyTable })));

/** The keys of the room at work, and the page that lists them. */
export function Keys() {
  const { ways } = useWays();
  const teaching = useTeaching();
  const [open, setOpen] = useState(false);
  const own = useMemo(() => ({ keys: () => setOpen(true) }), []);
  useRoomKeys(ways.keys, own);
  return (
    <Modal opened={open} onClose={() => setOpen(false)} title={<Begin>Keys of the room</Begin>} size="lg">
      <Suspense>
        <KeyTable who={teaching ? 'teaching' : 'students'} />
        <p>Hold the space bar to speak for as long as you hold it.</p>
      </Suspense>
    </Modal>
  );
}
