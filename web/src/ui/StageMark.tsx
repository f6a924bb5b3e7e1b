import type { StageState } from '@nimble-bell/core/api';

/** Done, needs you, not yet: a tick in a disc, a bell's clapper, an empty ring. */
export function StageMark({ state }: { state: StageState }) {
  return (
    <svg width={16} height={16} viewBox="0 0 16 16" aria-hidden>
      {state === 'done' && (
        <>
          <circle cx={8} cy={8} r={7} fill="var(--pine)" />
          <path d="M4.5 8.2l2.4 2.4l4.6-5" stroke="var(--card)" strokeWidth={1.8} fill="none" />
        </>
      )}
      {state === 'needs you' && (
        <>
          <circle cx={8} cy={8} r={6.2} fill="var(--brass-wash)" stroke="var(--brass)" strokeWidth={1.6} />
          <circle cx={8} cy={8} r={2.6} fill="var(--brass)" />
        </>
      )}
      {state === 'not yet' && (
        <circle cx={8} cy={8} r={6.2} fill="none" stroke="var(--muted)" strokeWidth={1.2} />
      )}
    </svg>
  );
}
