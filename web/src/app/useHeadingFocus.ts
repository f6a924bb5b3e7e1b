import { useEffect, useRef } from 'react';
import { useLocation } from 'react-router';

/** Waited for a heading no longer than this: the page's data may be on its way. */
const PATIENCE_MS = 8000;

/** Puts focus where it is read from, without a place in the order of tabs. */
export function focusOn(element: HTMLElement | null | undefined) {
  if (!element) return;
  if (!element.matches('a[href], button, input, select, textarea, [tabindex]')) element.tabIndex = -1;
  element.focus();
}

/** The page's heading. */
export const pageHeading = () =>
  document.querySelector<HTMLElement>('main h1') ?? document.querySelector<HTMLElement>('h1');

/**
 * When the page is turned focus goes to its heading, as a loaded page would begin there; not on the first page, and not
 * where the person has begun with something else meanwhile.
 */
export function useHeadingFocus() {
  const { pathname } = useLocation();
  const before = useRef(pathname);
  useEffect(() => {
    if (before.current === pathname) return;
    before.current = pathname;
    const from = document.activeElement;
    const go = (): boolean => {
      const found = pageHeading();
      if (!found) return false;
      const { activeElement: at } = document;
      if (at === from || at === document.body || at === null) focusOn(found);
      return true;
    };
    if (go()) return;
    const look = new MutationObserver(() => go() && look.disconnect());
    look.observe(document.body, { childList: true, subtree: true });
    const late = setTimeout(() => look.disconnect(), PATIENCE_MS);
    return () => {
      look.disconnect();
      clearTimeout(late);
    };
  }, [pathname]);
}
