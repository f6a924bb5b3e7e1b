import type { SessionState } from '@nimble-bell/core/api';

/** A session's state as the ribbon draws it: full bar held, outline planned, diamond moved, cross cancelled. */
export function SessionMark({ state }: { state: SessionState }) {
  const line = { stroke: 'var(--pine)', strokeWidth: 1.6, fill: 'var(--card)' };
  return (
    <svg width={12} height={16} viewBox="0 0 12 16" aria-hidden>
      {state === 'cancelled' && <path d="M2 4l8 8m0-8l-8 8" stroke="var(--clay)" strokeWidth={2} />}
      {state === 'moved' && <path d="M6 2l4 6l-4 6l-4-6z" {...line} />}
      {state === 'planned' && <rect x={3.5} y={2} width={5} height={12} rx={1.5} {...line} />}
      {state === 'held' && <rect x={3.5} y={2} width={5} height={12} rx={1.5} {...line} fill="var(--pine)" />}
      {state === 'live' && (
        <rect x={3.5} y={2} width={5} height={12} rx={1.5} stroke="var(--brass-text)" fill="var(--brass)" />
      )}
    </svg>
  );
}
