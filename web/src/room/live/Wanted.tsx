import { useEffect, useRef } from 'react';
import type { Size } from './looks';
import { useRoom } from './useRoom';

/** Asks for somebody's camera, small, for as long as this is in sight. */
export function WantedInSight({ member }: { member: string }) {
  const { call } = useRoom();
  const mark = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    let leave: (() => void) | null = null;
    const sight = new IntersectionObserver((entries) => {
      const seen = entries.at(-1)?.isIntersecting ?? false;
      if (seen && !leave) leave = call.looks.want(member, 'small');
      if (!seen) {
        leave?.();
        leave = null;
      }
    });
    if (mark.current) sight.observe(mark.current);
    return () => {
      sight.disconnect();
      leave?.();
    };
  }, [call, member]);
  return <span ref={mark} aria-hidden style={{ width: 1, height: 1 }} />;
}

/** Asks for the cameras of all these while it is shown, in the size that they are shown in. */
export function useWanted(members: readonly (string | null)[], size: Size = 'large') {
  const { call } = useRoom();
  const all = members.filter((m) => m !== null).join();
  useEffect(() => {
    const leave = all ? all.split(',').map((m) => call.looks.want(m, size)) : [];
    return () => leave.forEach((l) => l());
  }, [call, all, size]);
}
