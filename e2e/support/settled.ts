import type { Page } from '@playwright/test';

/** So long nothing is on its way before a page is said to rest, ms; and so long it is waited for at most. */
const QUIET_MS = 140;
const MOST_MS = 5000;

const watched = new WeakMap<Page, { open: number; since: number }>();

/** What is on its way of a page, from now on: asked for before it is opened. */
export function watchRequests(page: Page) {
  const known = watched.get(page);
  if (known) return known;
  const state = { open: 0, since: Date.now() };
  const step = (by: number) => () => {
    state.open = Math.max(0, state.open + by);
    state.since = Date.now();
  };
  page.on('request', step(1));
  page.on('requestfinished', step(-1));
  page.on('requestfailed', step(-1));
  // What was on its way to the page before is nobody's any more.
  page.on('domcontentloaded', () => {
    state.open = 0;
    state.since = Date.now();
  });
  watched.set(page, state);
  return state;
}

/** Waits until nothing has been on its way for a moment. */
export async function settled(page: Page): Promise<void> {
  const state = watchRequests(page);
  const end = Date.now() + MOST_MS;
  while (Date.now() < end && (state.open > 0 || Date.now() - state.since < QUIET_MS))
    await page.waitForTimeout(25);
}
