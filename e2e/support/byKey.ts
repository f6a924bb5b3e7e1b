import { expect, type Locator, type Page } from '@playwright/test';

/** More stops than any page has: whoever needs more is caught. */
const MOST_STOPS = 900;

/** What has focus, as one would say it: what it is, and its name. */
export const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const e = document.activeElement as HTMLElement | null;
    if (!e || e === document.body) return 'nothing';
    const labelled = (e.getAttribute('aria-labelledby') ?? '')
      .split(' ')
      .map((id) => document.getElementById(id)?.textContent ?? '')
      .join(' ')
      .trim();
    const name =
      e.getAttribute('aria-label') ??
      (labelled || (e as HTMLInputElement).labels?.[0]?.textContent || e.textContent || '');
    const { placeholder } = e as HTMLInputElement;
    return `${e.getAttribute('role') ?? e.tagName.toLowerCase()}: ${(name.trim() || placeholder || '').replace(/\s+/g, ' ').slice(0, 70)}`;
  });

/** Walks by Tab until this has focus. */
export async function tabTo(page: Page, target: Locator, by = 'Tab'): Promise<void> {
  const goal = await target.elementHandle();
  for (let i = 0; i < MOST_STOPS; i++) {
    if (await goal!.evaluate((e) => e === document.activeElement)) return;
    await page.keyboard.press(by);
  }
  throw new Error(`not reached by Tab: ${await goal!.evaluate((e) => e.outerHTML.slice(0, 120))}`);
}

interface Stop {
  what: string;
  faults: string[];
}

/** What is wrong with the stop that has focus: it has no name, no ring, is hidden, is covered, or is too small. */
const stopHere = (page: Page): Promise<Stop | null> =>
  page.evaluate(() => {
    const e = document.activeElement as HTMLElement | null;
    if (!e || e === document.body) return null;
    const faults: string[] = [];
    // An input that is drawn by its label is as large as that.
    const label = (e as HTMLInputElement).labels?.[0];
    const own = e.getBoundingClientRect();
    const box = own.width < 2 && label ? label.getBoundingClientRect() : own;
    const name =
      e.getAttribute('aria-label') ||
      e.getAttribute('aria-labelledby') ||
      (e as HTMLInputElement).labels?.length ||
      e.textContent?.trim() ||
      e.title;
    if (!name) faults.push('no name');
    const drawn = (x: Element | null): boolean => {
      if (!x) return false;
      const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(x);
      return (outlineStyle !== 'none' && parseFloat(outlineWidth) >= 2) || boxShadow !== 'none';
    };
    // A part whose input is drawn by its neighbour shows the ring there.
    const around = [
      e,
      e.parentElement,
      e.nextElementSibling,
      e.parentElement?.parentElement ?? null,
      label ?? null,
    ];
    // Within a letter its own links draw their ring.
    if (e.tagName !== 'IFRAME' && !around.some((x) => x && drawn(x))) faults.push('no ring');
    if (box.width < 1 || box.height < 1 || !e.checkVisibility()) faults.push('not to be seen');
    const [x, y] = [
      Math.min(Math.max(box.left + box.width / 2, 1), innerWidth - 2),
      Math.min(Math.max(box.top + Math.min(box.height / 2, 20), 1), innerHeight - 2),
    ];
    const top = document.elementFromPoint(x, y);
    const mine =
      top && (e.contains(top) || top.contains(e) || label?.contains(top) || e.parentElement?.contains(top));
    if (!mine && box.width > 2) faults.push(`covered by ${top?.tagName} ${top?.className}`);
    if (box.bottom < 1 || box.top > innerHeight - 1) faults.push('out of sight');
    // Links within a line of text are as high as the line (WCAG 2.5.8, inline).
    const inline = getComputedStyle(e).display === 'inline';
    const isField = e.matches('input[type=checkbox], input[type=radio]') && e.closest('label, div');
    if (!inline && !isField && box.width > 2 && (box.width < 23.5 || box.height < 23.5))
      faults.push(`${box.width.toFixed(0)} × ${box.height.toFixed(0)} px`);
    return {
      what: `${e.getAttribute('role') ?? e.tagName.toLowerCase()} “${(e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 40)}”`,
      faults,
    };
  });

/** Walks a page from its first stop to where it ends. Gives how many stops there are, and what is wrong with them. */
export async function walkThrough(page: Page): Promise<{ stops: number; faults: string[] }> {
  await page.evaluate(() => {
    (document.activeElement as HTMLElement | null)?.blur();
    window.scrollTo(0, 0);
  });
  const faults: string[] = [];
  let stops = 0;
  for (; stops < MOST_STOPS; stops++) {
    await page.keyboard.press('Tab');
    let stop = await stopHere(page);
    // What a neighbour had open may be closing still.
    if (stop?.faults.length) {
      await page.waitForTimeout(150);
      stop = await stopHere(page);
    }
    if (!stop) break;
    for (const fault of stop.faults) faults.push(`${stop.what}: ${fault}`);
  }
  expect(stops, `the walk of ${page.url()} ends`).toBeLessThan(MOST_STOPS);
  return { stops, faults };
}
