import { MantineThemeProvider } from '@mantine/core';
import { lazy, Suspense, useEffect, useMemo, type ReactNode } from 'react';
import { styleNow } from '@nimble-bell/core/calendar';
import { fieldsFor } from './styledFields';
import { useLocation } from 'react-router';
import { LinkContext } from './api';
import { useMe } from './queries';
import { readAs, useStyleVersion } from './reader';
import { useLine } from './line';
import { LineBar } from './LineBar';
import { Notices } from './Notices';
import { useTitle } from './title';
import { leadToFirstFault } from './firstFault';
import { keepFocus } from './keptFocus';
import { useHeadingFocus } from './useHeadingFocus';

const SignInAgain = lazy(() => import('../ui/SignInAgain'));

/** What surrounds every page: whose link it speaks with, focus that goes along, its title, what is said to the person. */
export function Root({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  const [, link = null] = /^\/in\/([^/]+)/.exec(pathname) ?? [];
  return (
    <LinkContext value={link}>
      <Around>{children}</Around>
    </LinkContext>
  );
}

function Around({ children }: { children: ReactNode }) {
  useHeadingFocus();
  useEffect(keepFocus, []);
  useEffect(leadToFirstFault, []);
  useTitle();
  const { signedOut } = useLine();
  const style = useMe().data?.preferences.style;
  useEffect(() => {
    if (style) readAs(style);
  }, [style]);
  const version = useStyleVersion();
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the version says when the style is another
  const fields = useMemo(() => fieldsFor(styleNow()), [version]);
  return (
    <>
      <LineBar />
      <MantineThemeProvider key={version} theme={fields}>
        {children}
      </MantineThemeProvider>
      {signedOut && (
        <Suspense>
          <SignInAgain />
        </Suspense>
      )}
      <Notices />
    </>
  );
}
