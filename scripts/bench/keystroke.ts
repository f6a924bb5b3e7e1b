import { chromium, type CDPSession, type Page } from '@playwright/test';
import config from '../../e2e/playwright.config';
import { account } from '../../e2e/support/course';
import { MAREN, signIn } from '../../e2e/support/people';
import { BASE_URL } from '../../e2e/support/product';
import { ms, percentile, type Figure } from './table';
import { workMs } from './work';

declare global {
  interface Window {
    paints: number[];
  }
}

/** So many that the 99th of a hundred is not one hiccup of the machine. */
const KEYS = 600;
/** After each key, so that nothing of it is left for the next. */
const PAUSE_MS = 30;

/** A course of six series in a term of 52 weeks. */
export async function makeYear(): Promise<string> {
  const api = await account(MAREN);
  const post = async (path: string, data: object) => {
    const answer = await api.post(path, { data });
    if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
    return answer.json();
  };
  const { id: term } = await post('/api/terms', {
    name: `A year ${Date.now() % 100_000}`,
    zone: 'America/Halifax',
    firstDay: '2026-08-31',
    lastDay: '2027-08-29',
    daysOff: [{ from: '2026-12-21', to: '2027-01-03', name: 'Winter' }],
    daySwaps: [],
  });
  const { id } = await post('/api/courses', { code: `Y-${Date.now() % 100_000}`, title: 'A year', term });
  const ends = { by: 'term' };
  const days = (...list: string[]) => list.map((day, i) => ({ day, start: `${10 + i * 2}:00`, minutes: 60 }));
  const patterns = [
    { kind: 'weekly', days: days('monday', 'wednesday', 'friday'), ends },
    { kind: 'weekly', every: 2, days: days('tuesday', 'thursday'), ends },
    { kind: 'daily', start: '07:00', minutes: 20, ends },
    { kind: 'monthly', onWeekday: { nth: 1, day: 'saturday' }, start: '10:00', minutes: 60, ends },
    { kind: 'dates', start: '16:00', minutes: 60, dates: ['2026-10-03', '2026-11-07', '2027-02-06'], ends },
    {
      kind: 'weekly',
      days: days('monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'),
      ends,
    },
  ];
  await post(`/api/courses/${id}/plan`, {
    edit: 'add-series',
    series: patterns.map((pattern, i) => ({ title: `Series ${i + 1}`, pattern })),
  });
  await api.dispose();
  return id;
}

/** Keys in what has focus, each with what it costs the page until it is painted. */
async function typed(page: Page, client: CDPSession) {
  await page.evaluate(watchPaints);
  const keys: number[] = [];
  for (let i = 0; i < KEYS; i++) {
    const before = await workMs(client);
    await page.keyboard.press(i % 2 ? '0' : 'Backspace');
    await page.evaluate(
      () => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
    );
    keys.push((await workMs(client)) - before);
    await page.waitForTimeout(PAUSE_MS);
  }
  return { keys, paints: await page.evaluate(() => window.paints) };
}

/**
 * What one keystroke costs in the editor of the largest series, its list, totals and the ribbon drawn anew, in the
 * browser slowed to a quarter, beside the same key in a bare field of an empty page.
 */
export async function keystroke(): Promise<Figure[]> {
  const course = await makeYear();
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await browser.newPage({ baseURL: BASE_URL, viewport: { width: 1280, height: 800 } });
    await signIn(page, MAREN);
    await page.goto(`/course/${course}/plan`);
    await page
      .getByRole('region', { name: 'Series 6', exact: true })
      .getByRole('button', { name: 'Change' })
      .click();
    const field = page.getByLabel('Minutes on monday');
    await field.click();
    const client = await page.context().newCDPSession(page);
    await client.send('Performance.enable');
    await client.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    const ours = await typed(page, client);
    await page.setContent('<input value="60" autofocus>');
    await page.locator('input').focus();
    const bare = await typed(page, client);
    return [0.5, 0.99].flatMap((part) => {
      const row = (what: string, of: 'keys' | 'paints', wanted = ''): Figure => {
        const [our, their] = [percentile(ours[of], part), percentile(bare[of], part)];
        return {
          what: `${what}, p${part * 100} of ${ours[of].length}`,
          ours: ms(our),
          peer: 'a bare field of an empty page',
          theirs: ms(their),
          ratio: (our / their).toFixed(1),
          wanted,
        };
      };
      return [
        row('main thread for one key and its dates', 'keys', part === 0.99 ? 'at most 33 ms' : ''),
        row('from the key to its paint (to 8 ms)', 'paints'),
      ];
    });
  } finally {
    await browser.close();
  }
}

/** The browser's own time from each key's event to the paint that shows it (Event Timing), kept in the page, ms. */
function watchPaints() {
  window.paints = [];
  new PerformanceObserver((seen) => {
    for (const { name, duration } of seen.getEntries()) if (name === 'keydown') window.paints.push(duration);
  }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit);
}
