import { chromium, type Page } from '@playwright/test';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import config from '../../e2e/playwright.config';
import { account } from '../../e2e/support/course';
import { MAREN, signIn } from '../../e2e/support/people';
import { BASE_URL } from '../../e2e/support/product';
import { ms, type Figure } from './table';

const FRAME_MS = 1000 / 60;

const rowsOf = (count: number) =>
  Array.from({ length: count }, (_, i) => ({
    line: i + 2,
    name: `Tide Reader ${i}`,
    email: `tide.reader.${i}@saltmarsh.example`,
    zone: 'Europe/Lisbon',
    group: 'ABCDEFGH'[i % 8]!,
    extra: { Level: `B${i % 4}` },
  }));

/** A class of 1,000, a list of 5,000 read over it, and its table scrolled from end to end. */
export async function classList(): Promise<Figure[]> {
  const api = await account(MAREN);
  const post = async (path: string, data: object) => {
    const answer = await api.post(path, { data });
    if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
    return answer.json();
  };
  const { id } = await post('/api/courses', { code: `L-${Date.now() % 100_000}`, title: 'A large class' });
  await post(`/api/courses/${id}/members`, { edit: 'import', rows: rowsOf(1000) });
  await api.dispose();
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await browser.newPage({ baseURL: BASE_URL, viewport: { width: 1280, height: 800 } });
    await signIn(page, MAREN);
    await page.goto(`/course/${id}/class`);
    await page.getByRole('grid', { name: 'Class list' }).waitFor();
    return [...(await scrolled(page)), ...(await read(page))];
  } finally {
    await browser.close();
  }
}

/** From the file chosen to the counts shown, and the longest stretch in which the page could not have answered. */
async function read(page: Page): Promise<Figure[]> {
  await page.getByRole('button', { name: 'Import a class list' }).click();
  const csv = [
    'Name,E-mail,Time zone,Group,Level',
    ...rowsOf(5000).map((r) => `${r.name},${r.email},${r.zone},${r.group},C1`),
  ].join('\n');
  await page.evaluate(() => {
    const state = { longest: 0, last: performance.now(), on: true, shownAt: 0 };
    // The page itself says when the counts are there: nothing else asks it anything meanwhile.
    new MutationObserver(() => {
      if (!state.shownAt && document.querySelector('[data-testid=roster-counts]')) state.shownAt = Date.now();
    }).observe(document.body, { childList: true, subtree: true });
    Object.assign(window, { beat: state });
    const channel = new MessageChannel();
    channel.port1.onmessage = () => {
      const now = performance.now();
      state.longest = Math.max(state.longest, now - state.last);
      state.last = now;
      if (state.on) channel.port2.postMessage(0);
    };
    channel.port2.postMessage(0);
  });
  // A file of the disk: handed over as content it would be unpacked by the page, and counted as its work.
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'list-')), 'list.csv');
  writeFileSync(file, csv);
  const began = Date.now();
  await page.locator('input[type=file]').setInputFiles(file);
  await page.waitForTimeout(4000);
  const { longest, shownAt } = await page.evaluate(() => {
    const { beat } = window as unknown as { beat: { longest: number; on: boolean; shownAt: number } };
    beat.on = false;
    return beat;
  });
  const whole = shownAt - began;
  await page.getByText('4000 new, 1000 changed').waitFor();
  return [
    {
      what: 'preview of 5,000 rows over a class of 1,000, from the file to the counts',
      ours: ms(whole),
      peer: 'a second',
      theirs: ms(1000),
      ratio: (whole / 1000).toFixed(2),
      wanted: '',
    },
    {
      what: "the same: the page's longest blocked stretch",
      ours: ms(longest),
      peer: 'a noticeable pause',
      theirs: ms(50),
      ratio: (longest / 50).toFixed(2),
      wanted: 'at most 1',
    },
  ];
}

/** Frames that came late while the table of 1,000 was scrolled from top to bottom by 240 steps. */
async function scrolled(page: Page): Promise<Figure[]> {
  const gaps = await page.evaluate(async () => {
    const grid = document.querySelector<HTMLElement>('[role=grid]')!;
    const end = grid.scrollHeight - grid.clientHeight;
    const frame = () => new Promise<number>((done) => requestAnimationFrame(done));
    const found: number[] = [];
    let last = await frame();
    for (let i = 1; i <= 240; i++) {
      grid.scrollTop = (end * i) / 240;
      const now = await frame();
      found.push(now - last);
      last = now;
    }
    return found;
  });
  const late = gaps.filter((g) => g > FRAME_MS * 1.5).length;
  return [
    {
      what: 'class list of 1,000 scrolled end to end in 240 frames: frames that came late',
      ours: String(late),
      peer: 'all frames',
      theirs: '240',
      ratio: `${((100 * late) / 240).toFixed(1)} %`,
      wanted: '',
    },
  ];
}
