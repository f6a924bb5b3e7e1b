import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, type Locator, type Page } from '@playwright/test';
import { ROOT } from './product';

const FOLDER = path.join(ROOT, 'e2e/golden');

/** What is another with every run stands as what it is. */
const steady = (text: string): string =>
  text
    .replace(/T-\d+-\d+-\d+/g, 'T-1')
    .replace(/\/(course|session|room|watch)\/[a-z0-9]{12}/g, '/$1/ID')
    .replace(/term=[a-z0-9]{12}/g, 'term=ID')
    .replace(/\/in\/[\w-]+/g, '/in/LINK')
    .replace(/\.[a-z0-9]{12}@/g, '@')
    .replace(/\/(calendar|feed)s?\/[\w.-]+/g, '/$1/SECRET')
    // The evening of the tests, wherever its clocks stand.
    .replace(/\b(18|19|2[0-3]):\d\d\b( · \d+ min to the start)?/g, 'NOW')
    .replace(/Free on the server: [\d.]+ GB/g, 'Free on the server: N GB')
    .replace(/\d+ min to the start/g, 'N min to the start')
    .replace(/(in|for) \d+ (seconds?|minutes?|min)\b/g, '$1 N $2')
    .replace(/\b\d+ (seconds?|min|minutes?) ago/g, 'N $1 ago');

const own = (text: string) => `${steady(text).trimEnd()}\n`;
const kept = (name: string) => readFileSync(path.join(FOLDER, name), 'utf8');

/**
 * Compares with a file that is read by eye. `GOLDEN=1` writes it anew: look at the difference before it is committed.
 */
export function golden(name: string, text: string) {
  if (process.env.GOLDEN) {
    mkdirSync(FOLDER, { recursive: true });
    writeFileSync(path.join(FOLDER, name), own(text));
    return;
  }
  expect.soft(own(text), name).toBe(kept(name));
}

/** What a screen reader is given of a part of a page, once it is all there. */
export async function goldenTree(name: string, of: Locator) {
  const file = `${name}.yml`;
  if (!process.env.GOLDEN)
    await expect
      .poll(async () => own(await of.ariaSnapshot()) === kept(file))
      .toBe(true)
      .catch(() => undefined); // The difference is shown below.
  golden(file, await of.ariaSnapshot());
}

/** From now on everything that live regions of the page say is kept, in its order; gives what was said. */
export async function listenTo(page: Page): Promise<() => Promise<string[]>> {
  await page.evaluate(() => {
    const said: string[] = [];
    Object.assign(window, { said });
    const regionOf = (n: Node) =>
      (n instanceof Element ? n : n.parentElement)?.closest(
        '[aria-live=polite], [aria-live=assertive], [role=status], [role=alert]',
      );
    new MutationObserver((records) => {
      for (const r of records)
        for (const n of r.type === 'characterData' ? [r.target] : r.addedNodes) {
          const region = regionOf(n);
          const words = n.textContent?.trim().replace(/\s*×$/, '');
          if (region && words && region.checkVisibility({ visibilityProperty: true }))
            said.push(`${region.getAttribute('aria-live') ?? region.role ?? 'status'}: ${words}`);
        }
    }).observe(document.body, { childList: true, characterData: true, subtree: true });
  });
  return () => page.evaluate(() => (window as unknown as { said: string[] }).said);
}
