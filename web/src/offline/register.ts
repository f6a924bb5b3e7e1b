/** Has the browser keep what a page needs without a line. Nothing here depends on its being so. */
export function registerWorker() {
  if (!('serviceWorker' in navigator)) return;
  const register = () => void navigator.serviceWorker.register('/worker.js').catch(() => {});
  if (document.readyState === 'complete') register();
  else window.addEventListener('load', register);
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
