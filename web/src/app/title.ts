import { useEffect, useSyncExternalStore } from 'react';
import { useLocation } from 'react-router';
import { placesAt } from './pages';

/** What a page is about, where that is more than its address says: the course, the session. */
let about = '';
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const setAbout = (words: string) => {
  about = words;
  listeners.forEach((listener) => listener());
};

/** Names what this page is about for as long as it stands. */
export function useAbout(words: string | undefined) {
  useEffect(() => {
    setAbout(words ?? '');
    return () => setAbout('');
  }, [words]);
}

export const titleOf = (page: string | undefined, what: string) =>
  [page, what, 'Nimble Bell'].filter(Boolean).join(' – ');

/** The document's title: the page by its place, what it is about, and ours. */
export function useTitle() {
  const what = useSyncExternalStore(subscribe, () => about);
  const { pathname } = useLocation();
  const page = placesAt(pathname).findLast((place) => place.title !== undefined)?.title;
  useEffect(() => {
    document.title = titleOf(page, what);
  }, [page, what]);
}
