/** Has the browser keep what a page needs without a line. Nothing here depends on its being so. */
export function registerWorker() {
  if (!('serviceWorker' in navigator)) return;
  window.addEventListener('load', () => void navigator.serviceWorker.register('/worker.js').catch(() => {}));
}

const KEY = 'nimble-bell-home';

/** Remembers where this device is at home: it opens there when it was put on a phone's first screen. */
export function rememberHome(path: string) {
  try {
    localStorage.setItem(KEY, path);
  } catch {
    // A browser that keeps nothing opens at the entrance.
  }
}

export function homeOf(): string {
  try {
    const path = localStorage.getItem(KEY) ?? '/';
    return path.startsWith('/') && !path.startsWith('//') ? path : '/';
  } catch {
    return '/';
  }
}
