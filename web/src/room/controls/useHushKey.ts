import { useEffect } from 'react';
import { useRoom, useTeaching } from '../live/useRoom';

/** H closes everything, and lifts it again; not while somebody types. */
export function useHushKey() {
  const { connection, send } = useRoom();
  const teaching = useTeaching();
  useEffect(() => {
    if (!teaching) return;
    const press = (e: KeyboardEvent) => {
      const typing = (e.target as HTMLElement).closest('input, textarea, [contenteditable]');
      if (typing || e.ctrlKey || e.metaKey || e.altKey || e.key.toLowerCase() !== 'h') return;
      e.preventDefault();
      void send({ type: connection.view.state?.limits.hush ? 'lift' : 'hush' });
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [teaching, connection, send]);
}
