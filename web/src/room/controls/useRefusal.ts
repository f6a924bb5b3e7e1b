import { useMemo } from 'react';
import type { Capability } from '@nimble-bell/core/api';
import { refusalWords } from '@nimble-bell/core/room';
import { nameFrom, useInside, type Inside } from '../live/useRoom';

/** What is closed, by whom, and what one can do instead: for a control that cannot be used now. */
export function useRefusal(capability: Capability): string {
  return useInside(
    useMemo(
      () => (inside: Inside) =>
        refusalWords(inside.room, inside.info.me, capability, (m) => nameFrom(inside, m)),
      [capability],
    ),
  );
}
