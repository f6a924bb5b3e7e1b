import { lazy, Suspense, type ComponentType, type ReactNode } from 'react';
import { BrowserRouter, Navigate, Route, Routes, useLocation } from 'react-router';
import { Broken } from './Broken';
import { Lost } from './Lost';
import { PLACES, type Place } from './pages';
import { Root } from './Root';
import { Shell } from './Shell';

/** Each page once, however often it stands in the addresses. */
const pages = new Map<Place['page'], ComponentType>();
function pageOf(load: NonNullable<Place['page']>): ComponentType {
  let page = pages.get(load);
  if (!page) pages.set(load, (page = lazy(async () => ({ default: await load() }))));
  return page;
}

function elementOf({ page, to }: Place): ReactNode {
  if (to) return <Navigate to={to} replace />;
  if (!page) return null;
  const Page = pageOf(page);
  return <Page />;
}

const routeOf = (place: Place): ReactNode =>
  place.path === undefined ? (
    <Route key="" index element={elementOf(place)} />
  ) : (
    <Route key={place.path} path={place.path} {...(place.page ? { element: elementOf(place) } : {})}>
      {place.children?.map(routeOf)}
    </Route>
  );

/** The first word of an address. */
const beginning = (path: string | undefined) => path?.split('/')[1]?.toLowerCase();

/** Of all places those that begin as the address does: to rank every one of them takes a weak phone long. */
function Places() {
  const first = beginning(useLocation().pathname);
  return (
    <Routes>
      {PLACES.filter((place) => beginning(place.path) === first).map(routeOf)}
      <Route path="*" element={<Lost />} />
    </Routes>
  );
}

/** The addresses and what stands there. While the code of a page is on its way the page before it stands. */
export function Addresses() {
  return (
    <BrowserRouter>
      <Root>
        <Broken>
          <Suspense fallback={<Shell />}>
            <Places />
          </Suspense>
        </Broken>
      </Root>
    </BrowserRouter>
  );
}
