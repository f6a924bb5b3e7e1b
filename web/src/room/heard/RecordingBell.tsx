import { useEffect, useRef } from 'react';
import { useInside, type Inside } from '../live/useRoom';
import { ring } from './ring';

const select = ({ room }: Inside) => room.recording.state;

/** A bell when the recording begins, pauses, goes on and ends: also for whoever does not look. */
export function RecordingBell() {
  const state = useInside(select);
  const before = useRef(state);
  useEffect(() => {
    if (before.current === state) return;
    before.current = state;
    ring();
  }, [state]);
  return null;
}
