import { Fragment, useEffect, type ReactNode } from 'react';
import { useMe } from './queries';
import { readAs, useStyleVersion } from './reader';
import { LineBar, SignInAgain } from './LineBar';
import { Notices } from './Notices';
import { useTitle } from './title';
import { useHeadingFocus } from './useHeadingFocus';

/** What surrounds every page: focus that goes along when the page is turned, its title, what is said to the person. */
export function Root({ children }: { children: ReactNode }) {
  useHeadingFocus();
  const style = useMe().data?.preferences.style;
  useEffect(() => {
    if (style) readAs(style);
  }, [style]);
  const version = useStyleVersion();
  useTitle();
  return (
    <>
      <LineBar />
      <Fragment key={version}>{children}</Fragment>
      <SignInAgain />
      <Notices />
    </>
  );
}
