import type { RehearsalInfo } from '@nimble-bell/core/api';
import { useAsk } from '../../app/api';
import { useAsked, useChange } from '../../app/queries';
import { useNavigate } from 'react-router';

const EVERY_MS = 3000;

/** How the rehearsal goes whose room this is. */
export const useRehearsal = (session: string) =>
  useAsked<RehearsalInfo>(`/sessions/${session}/rehearsal`, { every: EVERY_MS });

/** Throws the rehearsal away, and goes back to the session that was rehearsed. */
export function useThrowAway(session: string, info: RehearsalInfo | undefined) {
  const ask = useAsk();
  const go = useNavigate();
  return useChange(
    () => ask(`/sessions/${session}/rehearsal`, 'DELETE'),
    () => 'The rehearsal is gone, with all that was in it.',
    () => void go(info ? `/course/${info.course}/session/${info.of}` : '/courses'),
  );
}
