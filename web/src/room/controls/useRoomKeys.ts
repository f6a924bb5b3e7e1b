import { useEffect } from 'react';
import { actOf, isTaken, type KeyId, type OwnKeys } from '../../keys/keys';

/**
 * A key presses the control that says `data-act`, as a finger would: what it may, and what it says where it may not, is
 * the control's own. Where the control is a field or a list, it goes there.
 */
export function useRoomKeys(own: OwnKeys, more: Partial<Record<KeyId, () => void>>) {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTaken(e) || e.repeat) return;
      const id = actOf(e.key, own);
      if (!id) return;
      const control = document.querySelector<HTMLElement>(`[data-act="${id}"]`);
      const act = more[id];
      if (!act && !control) return;
      e.preventDefault();
      if (act) act();
      else if (control instanceof HTMLButtonElement) control.click();
      else control!.focus();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [own, more]);
}
