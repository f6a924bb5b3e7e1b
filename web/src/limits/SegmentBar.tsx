import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { countWords } from '@nimble-bell/core/calendar';
import { ARROWS } from '../ui/arrows';
import { stretched, wholeOf, type SegmentDraft } from './sheetDraft';
import classes from './segments.module.css';

interface Props {
  segments: SegmentDraft[];
  /** The session's own minutes. */
  length: number;
  set: ((segments: SegmentDraft[]) => void) | null;
}

/** Segments drawn by their minutes against the session's length; the borders between them are dragged, or moved by arrows. */
export function SegmentBar({ segments, length, set }: Props) {
  const bar = useRef<HTMLDivElement>(null);
  const drag = useRef<{ x: number; border: number; from: SegmentDraft[] } | null>(null);
  const whole = Math.max(wholeOf(segments), length);
  const share = (minutes: number) => `${(100 * minutes) / whole}%`;
  const onMove = (e: PointerEvent) => {
    if (!drag.current || !set) return;
    const { x, border, from } = drag.current;
    const by = Math.round(((e.clientX - x) * whole) / bar.current!.clientWidth);
    set(stretched(from, border, by));
  };
  const onKey = (border: number) => (e: KeyboardEvent) => {
    const by = ARROWS[e.key];
    if (!by || !set) return;
    e.preventDefault();
    set(stretched(segments, border, by));
  };
  const over = wholeOf(segments) - length;
  return (
    <div>
      <div ref={bar} className={classes.bar} role="group" aria-label="The session's time">
        {segments.map((s, i) => (
          <div key={s.key} className={classes.part} style={{ width: share(s.minutes || 0) }}>
            <span className={classes.partName}>{s.title || 'Untitled'}</span>
            <span className="figures">{s.minutes || 0}</span>
            {set && i + 1 < segments.length && (
              <span
                className={classes.border}
                role="separator"
                aria-orientation="vertical"
                aria-label={`Between ${s.title || 'untitled'} and ${segments[i + 1]!.title || 'untitled'}, arrows move it by a minute`}
                aria-valuenow={s.minutes || 0}
                aria-valuemin={1}
                aria-valuemax={(s.minutes || 0) + (segments[i + 1]!.minutes || 0) - 1}
                tabIndex={0}
                onKeyDown={onKey(i)}
                onPointerDown={(e) => {
                  e.currentTarget.setPointerCapture(e.pointerId);
                  drag.current = { x: e.clientX, border: i, from: segments };
                }}
                onPointerMove={onMove}
                onPointerUp={() => (drag.current = null)}
              />
            )}
          </div>
        ))}
        {over > 0 && <div className={classes.end} style={{ left: share(length) }} />}
      </div>
      <p className={classes.sum} data-over={over > 0 || undefined} role="status">
        {countWords(wholeOf(segments), 'minute')} planned of {length}
        {over > 0 && `: ${countWords(over, 'minute')} more than there are`}
        {over < 0 && `: ${countWords(-over, 'minute')} left over`}
      </p>
    </div>
  );
}
