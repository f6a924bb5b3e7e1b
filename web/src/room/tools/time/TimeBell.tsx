import { useEffect, useRef } from 'react';
import { ring } from '../../heard/ring';
import { useInside, type Inside } from '../../live/useRoom';

const select = ({ room }: Inside) => room.timer.rangAt;

/** The bell of a timer, for everybody who is there when its time is over. */
export function TimeBell() {
  const rangAt = useInside(select);
  const before = useRef(rangAt);
  useEffect(() => {
    if (before.current === rangAt) return;
    before.current = rangAt;
    ring();
  }, [rangAt]);
  return null;
}
