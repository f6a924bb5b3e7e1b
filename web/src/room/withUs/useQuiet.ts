import { useMemo } from 'react';
import { quietIn } from '@nimble-bell/core/room';
import { useNow } from '../../app/clock';
import { useInside, type Inside } from '../live/useRoom';
import { useHidden } from './hidden';

/** Of whom nothing was seen for long, and whose page is behind another: nobody's to whoever does not teach. */
export function useQuiet(): { quiet: ReadonlySet<string>; hidden: ReadonlySet<string> } {
  const now = useNow(10_000);
  const select = useMemo(
    () =>
      ({ room }: Inside) =>
        quietIn(room, now).join(' '),
    [now],
  );
  const quiet = useInside(select);
  return { quiet: useMemo(() => new Set(quiet.split(' ')), [quiet]), hidden: useHidden(now) };
}
