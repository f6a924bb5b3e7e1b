import { askAhead } from './app/ahead';
import { placesAt } from './app/pages';

/** The first of our code: asks at once, side by side, for what the address needs. */
const { pathname } = window.location;
askAhead(pathname);
import('./main').catch(() => {
  const main = document.querySelector('main')!;
  main.removeAttribute('aria-busy');
  main.innerHTML =
    '<h1>This page did not come</h1><p>The line is down, or the server is away.</p><p><a href="">Load it anew</a></p>';
});
// In a task of its own. The router asks for the same again, and says what fails.
setTimeout(() => {
  for (const { page } of placesAt(pathname)) page?.().catch(() => {});
});
