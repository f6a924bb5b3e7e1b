import type { Page } from '@playwright/test';

/** Counts keys and presses on a page from now on, each by itself; gives how many since it was asked last. */
export async function countPresses(page: Page): Promise<() => Promise<number>> {
  await page.evaluate(() => {
    const counted = window as unknown as { presses: number };
    counted.presses = 0;
    for (const type of ['keydown', 'pointerdown'])
      addEventListener(type, (e) => void (e.isTrusted && counted.presses++), true);
  });
  return () =>
    page.evaluate(() => {
      const counted = window as unknown as { presses: number };
      const { presses } = counted;
      counted.presses = 0;
      return presses;
    });
}

/**
 * Counts what a person does on the pages: presses, and runs of keys. A run is what is typed into one element until
 * another is typed into or something is pressed. Only real input counts: what a script does to the page does not.
 */
export async function countInteractions(page: Page): Promise<() => Promise<number>> {
  await page.addInitScript(() => {
    const key = 'interactions';
    let typedInto: EventTarget | null = null;
    const count = () => sessionStorage.setItem(key, String(Number(sessionStorage.getItem(key) ?? 0) + 1));
    addEventListener(
      'pointerdown',
      (e) => {
        if (!e.isTrusted) return;
        typedInto = null;
        count();
      },
      true,
    );
    addEventListener(
      'keydown',
      (e) => {
        if (!e.isTrusted || e.target === typedInto || e.key === 'Tab') return;
        typedInto = e.target;
        count();
      },
      true,
    );
  });
  await page.evaluate(() => sessionStorage.removeItem('interactions'));
  return () => page.evaluate(() => Number(sessionStorage.getItem('interactions')));
}
