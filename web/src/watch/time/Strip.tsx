import type { RecordingDetail } from '@nimble-bell/core/api';
import classes from './time.module.css';

interface StripProps {
  recording: RecordingDetail;
}

const WIDTH = 1000;

/** Below the time line: where microphones were open, where the floor was somebody's, and where much was written. */
export function Strip({ recording: { strip, lengthMs } }: StripProps) {
  const x = (ms: number) => (ms / Math.max(1, lengthMs)) * WIDTH;
  const most = Math.max(1, ...strip.written.map((w) => w.count));
  return (
    <svg className={classes.strip} viewBox={`0 0 ${WIDTH} 34`} preserveAspectRatio="none" aria-hidden>
      {strip.open.map((s) => (
        <rect
          key={`o${s.from}`}
          x={x(s.from)}
          width={Math.max(1, x(s.until) - x(s.from))}
          y={2}
          height={8}
          fill="var(--pine)"
          opacity={0.35 + 0.65 * Math.min(1, s.count / 3)}
        />
      ))}
      {strip.floor.map((s) => (
        <rect
          key={`f${s.from}`}
          x={x(s.from)}
          width={Math.max(2, x(s.until) - x(s.from))}
          y={12}
          height={6}
          fill="var(--brass)"
        />
      ))}
      {strip.written.map((w) => (
        <rect
          key={`w${w.from}`}
          x={x(w.from)}
          width={Math.max(1, x(w.until) - x(w.from) - 1)}
          y={32 - 12 * (w.count / most)}
          height={12 * (w.count / most)}
          fill="var(--tide)"
        />
      ))}
    </svg>
  );
}
