import { chromium, type CDPSession, type Page } from '@playwright/test';
import { account } from '../../e2e/support/course';
import { MAREN, signIn } from '../../e2e/support/people';
import { BASE_URL } from '../../e2e/support/product';
import { ms, percentile, type Figure } from './table';
import { workMs } from './work';

const FRAME_MS = 1000 / 60;
const KEYS = 120;

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

/**
 * The main thread's work for one keystroke in the editor of the largest series, its list, totals and the ribbon drawn
 * anew, in the browser slowed to a quarter.
 */
export async function keystroke(): Promise<Figure[]> {
  const course = await makeYear();
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
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
    const idle: number[] = [];
    for (let i = 0; i < 20; i++) idle.push(await oneKey(page, client, 'Shift'));
    const times: number[] = [];
    for (let i = 0; i < KEYS; i++) {
      times.push(await oneKey(page, client, i % 2 ? '0' : 'Backspace'));
      await page.waitForTimeout(30);
    }
    await client.send('Emulation.setCPUThrottlingRate', { rate: 1 });
    const [p50, p99] = [percentile(times, 0.5), percentile(times, 0.99)];
    const still = ms(percentile(idle, 0.5));
    return [p50, p99].map((time, i) => ({
      what: `one keystroke's preview, 6 patterns, 52 weeks, CPU at a quarter, ${i ? 'p99' : 'p50'} (a key that changes nothing: ${still})`,
      ours: ms(time),
      peer: 'a frame at 60 Hz',
      theirs: ms(FRAME_MS),
      ratio: `${(time / FRAME_MS).toFixed(2)} frames`,
      wanted: '',
    }));
  } finally {
    await browser.close();
  }
}

/** The browser's own count of script, style and layout on the main thread, from before the key to two frames after it, ms. */
async function oneKey(page: Page, client: CDPSession, key: string): Promise<number> {
  const before = await workMs(client);
  await page.keyboard.press(key);
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  return (await workMs(client)) - before;
}
