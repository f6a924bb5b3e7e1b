import { useContext, useEffect, useMemo } from 'react';
import { LinkContext } from '../../../app/api';
import { useInfo } from '../../live/useRoom';
import { bytesOf, Pages } from './pages';

/** Pages of this class, as this page of the product may have them; let go of with what shows them. */
export function usePages(): Pages {
  const { session } = useInfo();
  const link = useContext(LinkContext);
  const pages = useMemo(
    () => new Pages((deck, page) => bytesOf(`/api/sessions/${session.id}/slides/${deck}/${page}`, link)),
    [session.id, link],
  );
  useEffect(() => () => pages.close(), [pages]);
  return pages;
}
