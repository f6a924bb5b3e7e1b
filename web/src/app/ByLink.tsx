import { Outlet, useParams } from 'react-router';
import { LinkContext } from './api';

/** Everything below speaks with the link in the address. */
export function ByLink() {
  const { code } = useParams();
  return (
    <LinkContext value={code ?? null}>
      <Outlet />
    </LinkContext>
  );
}
