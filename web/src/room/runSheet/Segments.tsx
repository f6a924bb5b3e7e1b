import { clockWords } from '@nimble-bell/core/calendar';
import type { RunSheetState } from '@nimble-bell/core/room';
import type { Times } from './times';
import classes from './runSheet.module.css';

const MINUTE_MS = 60_000;

interface SegmentsProps {
  sheet: RunSheetState;
  times: Times;
  zone: string;
  now: number;
  /** The time that is left, in words. */
  left: string;
}

/** The run sheet over the session's time: above as it was planned, below as it went, and the moment now. */
export function Segments({ sheet, times, zone, now, left }: SegmentsProps) {
  const { segments, at, held } = sheet;
  const planned = segments.reduce((sum, s) => sum + s.minutes, 0) * MINUTE_MS;
  const until = Math.max(times.endsAt + times.lingerMinutes * MINUTE_MS, times.startsAt + planned);
  const whole = until - times.startsAt;
  const place = (instant: number) => Math.min(100, Math.max(0, (100 * (instant - times.startsAt)) / whole));
  const words = segments
    .map((s, i) => `${s.title} ${s.minutes} minutes${i === at ? ', now' : ''}`)
    .join('; ');
  return (
    <div className={classes.sheet} role="img" aria-label={`Run sheet: ${words}. ${left}`}>
      <div className={classes.planned}>
        {segments.map((s, i) => (
          <div
            key={i}
            title={`${s.title}, ${s.minutes} min`}
            className={classes.segment}
            data-now={i === at || undefined}
            data-past={(at !== null && i < at) || undefined}
            style={{ width: `${(100 * s.minutes * MINUTE_MS) / whole}%` }}
          >
            {s.title} <span className="figures">{s.minutes}</span>
          </div>
        ))}
        {times.lingerMinutes > 0 && planned < whole && <div className={classes.lingerSegment} />}
      </div>
      <div className={classes.real} data-testid="held">
        {held.map((h) => (
          <div
            key={h.from}
            title={`${h.title}, ${clockWords(h.from, zone)} to ${h.until ? clockWords(h.until, zone) : 'now'}`}
            style={{
              left: `${place(h.from)}%`,
              width: `max(3px, ${place(h.until ?? now) - place(h.from)}%)`,
            }}
          />
        ))}
      </div>
      <div className={classes.moment} style={{ left: `${place(now)}%` }} />
    </div>
  );
}
