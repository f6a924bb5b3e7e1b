import { useEffect, useMemo } from 'react';
import { bytesOf, Pages } from './pages';

/** The pages that were shown in a class, from where its recording has them. */
export function useReplayPages({ path, query }: { path: string; query: string }): Pages {
  const pages = useMemo(
    () => new Pages((deck, page) => bytesOf(`${path}/${deck}/${page}${query}`, null)),
    [path, query],
  );
  useEffect(() => () => pages.close(), [pages]);
  return pages;
}
