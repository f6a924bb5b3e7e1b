import type { RecordingDetail } from '@nimble-bell/core/api';
import type { GivenSigns } from '@nimble-bell/core/room';
import classes from './time.module.css';

interface StripProps {
  recording: RecordingDetail;
}

const WIDTH = 1000;
const HEIGHT = 46;

const inAll = (given: GivenSigns): number => Object.values(given).reduce((sum, n) => sum + n, 0);

/** Below the time line: where microphones were open, the floor was somebody's, signs were given, and much was written. */
export function Strip({ recording: { strip, lengthMs } }: StripProps) {
  const x = (ms: number) => (ms / Math.max(1, lengthMs)) * WIDTH;
  const most = Math.max(1, ...strip.written.map((w) => w.count));
  const signs = strip.signs.map((s) => ({ ...s, count: inAll(s.given) }));
  const mostSigns = Math.max(1, ...signs.map((s) => s.count));
  return (
    <svg className={classes.strip} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" aria-hidden>
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
      {signs.map((s) => (
        <rect
          key={`s${s.from}`}
          x={x(s.from)}
          width={Math.max(1, x(s.until) - x(s.from))}
          y={30 - 10 * (s.count / mostSigns)}
          height={10 * (s.count / mostSigns)}
          fill="var(--muted)"
        />
      ))}
      {strip.written.map((w) => (
        <rect
          key={`w${w.from}`}
          x={x(w.from)}
          width={Math.max(1, x(w.until) - x(w.from) - 1)}
          y={44 - 12 * (w.count / most)}
          height={12 * (w.count / most)}
          fill="var(--tide)"
        />
      ))}
    </svg>
  );
}
