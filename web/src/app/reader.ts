import { setStyle, styleNow, styleOfLocale, type OwnStyle } from '@nimble-bell/core/calendar';
import { useSyncExternalStore } from 'react';

const KEY = 'nimble-bell-style';
let version = 0;
const listeners = new Set<() => void>();

function put(own: OwnStyle) {
  const next = { ...styleOfLocale(navigator.language), ...own };
  if (JSON.stringify(next) === JSON.stringify(styleNow())) return;
  setStyle(next);
  version++;
  listeners.forEach((listener) => listener());
}

/** Days and hours as this reader has them: their own choice, for the rest as their browser. */
export function readAs(own: OwnStyle) {
  put(own);
  try {
    localStorage.setItem(KEY, JSON.stringify(own));
  } catch {
    // A browser that keeps nothing learns it anew with each page.
  }
}

/** As this device was read on last, before the server has said who reads. */
export function readAsBefore() {
  try {
    put(JSON.parse(localStorage.getItem(KEY) ?? '{}') as OwnStyle);
  } catch {
    put({});
  }
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
/** Another number whenever words of time are written otherwise: what shows them is made anew. */
export const useStyleVersion = () => useSyncExternalStore(subscribe, () => version);
