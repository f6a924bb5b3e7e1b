import { Component, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import { Lost, NotFetched } from './Lost';

/** What browsers say of code that cannot be fetched: the server has a newer one, or does not answer. */
const NOT_FETCHED = /dynamically imported module|module script failed|preload CSS|Failed to fetch/i;

class Boundary extends Component<{ children: ReactNode }, { error: unknown }> {
  override state = { error: null as unknown };
  static getDerivedStateFromError = (error: unknown) => ({ error });
  override render() {
    const { error } = this.state;
    if (error === null) return this.props.children;
    return error instanceof Error && NOT_FETCHED.test(error.message) ? <NotFetched /> : <Lost />;
  }
}

/** Words and a way on in place of a page that broke, or whose code did not come; another address is tried anew. */
export function Broken({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  return <Boundary key={pathname.split('/').slice(0, 3).join('/')}>{children}</Boundary>;
}
