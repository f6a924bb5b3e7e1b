import type { Permission } from '@nimble-bell/core/api';

/** A door in plan, as an architect draws it: shut wall, a leaf ajar, an opening. Told by shape, not by colour. */
export function PermissionMark({ state, size = 16 }: { state: Permission; size?: number }) {
  const line = { stroke: 'currentColor', strokeWidth: 2.2, fill: 'none', strokeLinecap: 'round' as const };
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden style={{ flex: 'none' }}>
      {state === 'closed' && <path d="M1.5 12h13M5 12V9.5M11 12V9.5" {...line} />}
      {state === 'byHand' && <path d="M1.5 12h3M11.5 12h3M4.5 12l6-6" {...line} />}
      {state === 'open' && <path d="M1.5 12h3M11.5 12h3M4.5 12V4" {...line} />}
    </svg>
  );
}
