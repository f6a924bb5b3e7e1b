import { setStyle, styleNow, styleOfLocale, type OwnStyle, type Style } from '@nimble-bell/core/calendar';
import { told } from './told';

const KEY = 'nimble-bell-style';
const version = told(0);

let ofDevice: Style | null = null;

function put(own: OwnStyle) {
  ofDevice ??= styleOfLocale(navigator.language);
  const next = { ...ofDevice, ...own };
  if (JSON.stringify(next) === JSON.stringify(styleNow())) return;
  setStyle(next);
  version.set(version.get() + 1);
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

/** Another number whenever words of time are written otherwise: what shows them is made anew. */
export const useStyleVersion = version.use;

/** The zone of this device's clock. */
export const deviceZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone;
