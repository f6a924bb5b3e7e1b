import type { ReactNode } from 'react';
import { LineBar, SignInAgain } from './LineBar';
import { Notices } from './Notices';
import { useTitle } from './title';
import { useHeadingFocus } from './useHeadingFocus';

/** What surrounds every page: focus that goes along when the page is turned, its title, what is said to the person. */
export function Root({ children }: { children: ReactNode }) {
  useHeadingFocus();
  useTitle();
  return (
    <>
      <LineBar />
      {children}
      <SignInAgain />
      <Notices />
    </>
  );
}
