import { useEffect } from 'react';
import { useLocation } from 'react-router';
import { placesAt } from './pages';
import { told } from './told';

/** What a page is about, where that is more than its address says: the course, the session. */
const about = told('');

/** Names what this page is about for as long as it stands. */
export function useAbout(words: string | undefined) {
  useEffect(() => {
    about.set(words ?? '');
    return () => about.set('');
  }, [words]);
}

export const titleOf = (page: string | undefined, what: string) =>
  [page, what, 'Nimble Bell'].filter(Boolean).join(' – ');

/** The document's title: the page by its place, what it is about, and ours. */
export function useTitle() {
  const what = about.use();
  const { pathname } = useLocation();
  const page = placesAt(pathname).findLast((place) => place.title !== undefined)?.title;
  useEffect(() => {
    document.title = titleOf(page, what);
  }, [page, what]);
}
