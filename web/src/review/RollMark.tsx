import type { Mark } from '@nimble-bell/core/roll';

/** A mark of the roll by its shape: full, its right half, its left half, a ring, a slash in a ring. */
export function RollMark({ mark }: { mark: Mark }) {
  const ring = { cx: 8, cy: 8, r: 5.4, fill: 'none', stroke: 'currentColor', strokeWidth: 1.6 };
  return (
    <svg width={16} height={16} viewBox="0 0 16 16" aria-hidden data-mark={mark}>
      {mark === 'present' && <circle {...ring} fill="currentColor" />}
      {mark === 'late' && (
        <>
          <circle {...ring} />
          <path d="M8 2.6a5.4 5.4 0 0 1 0 10.8z" fill="currentColor" />
        </>
      )}
      {mark === 'early' && (
        <>
          <circle {...ring} />
          <path d="M8 2.6a5.4 5.4 0 0 0 0 10.8z" fill="currentColor" />
        </>
      )}
      {mark === 'absent' && <circle {...ring} strokeDasharray="2.4 2" />}
      {mark === 'excused' && (
        <>
          <circle {...ring} />
          <path d="M4.5 11.5l7-7" stroke="currentColor" strokeWidth={1.6} />
        </>
      )}
    </svg>
  );
}
