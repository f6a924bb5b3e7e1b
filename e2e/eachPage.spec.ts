import { expect, test, type Page } from '@playwright/test';
import { walkThrough } from './support/byKey';
import { account, makeCourse, type MadeCourse } from './support/course';
import { MAREN } from './support/people';
import { eachRoute, openRoute, type Route } from './support/routes';

const LONG = [
  'Maximiliana Theodora Wilhelmina van der Waterschoot-Featherstonehaugh of the Outer Shoals II',
  'عبد الرحمن بن محمد بن عبد العزيز المهندس البحري من ميناء الإسكندرية القديمة الكبيرة جدا',
  'Tidewatcher🌊 Lighthousekeeperswidow-and-daughter-of-the-very-far-northern-skerries 🧭🐚',
];
const WINDOWS = [
  [320, 640],
  [640, 400], // 1280 × 800 at 200 %
  [768, 1024],
  [844, 390],
  [1280, 800],
] as const;

const PHONE = { width: 390, height: 844 };
const DESKTOP = { width: 1280, height: 800 };

const SPACED =
  '* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important }';

/** What leaves the window sideways, or is cut off with no way to read the rest. */
const outside = (page: Page) =>
  page.evaluate(() => {
    const { clientWidth, scrollWidth } = document.documentElement;
    const say = (e: Element) => `${e.tagName} “${(e.textContent ?? '').trim().slice(0, 30)}”`;
    const faults: string[] = [];
    if (scrollWidth > clientWidth + 1) faults.push(`scrolls sideways by ${scrollWidth - clientWidth}`);
    // Those that hold words, each once: of most it is enough to ask how wide they are.
    const holders = new Set<HTMLElement>();
    const words = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    while (words.nextNode())
      if (words.currentNode.textContent!.trim()) holders.add(words.currentNode.parentElement!);
    for (const e of holders) {
      if (e.clientWidth <= 1 || e.scrollWidth <= e.clientWidth + 1) continue;
      // What is cut is whole on demand: in a title, or in what a screen reader is given.
      if (getComputedStyle(e).overflowX === 'hidden' && !e.closest('[title], [aria-label]'))
        faults.push(`cut: ${say(e)}`);
    }
    return faults;
  });

async function crowded(): Promise<MadeCourse> {
  const course = await makeCourse({ students: 5, apart: true });
  const api = await account(MAREN);
  for (const [i, name] of LONG.entries())
    await api.post(`/api/courses/${course.id}/members`, {
      data: { edit: 'change', members: [course.students[i]!.id], fields: { name } },
    });
  const plan = {
    title: 'Reading the tides together, and what the pilots of the harbour make of them',
    group: 'A',
  };
  await api.post(`/api/courses/${course.id}/plan`, {
    data: {
      edit: 'add-series',
      series: [
        {
          ...{ ...plan, kind: 'group' },
          pattern: {
            kind: 'weekly',
            days: [{ day: 'friday', start: '17:30', minutes: 45 }],
            ends: { by: 'term' },
          },
        },
      ],
    },
  });
  await api.dispose();
  return course;
}

/** Bytes over the wire until a page rests, headers and all; as on a first visit. */
async function weigh(page: Page, open: () => Promise<void>): Promise<number> {
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Network.enable');
  await cdp.send('Network.setCacheDisabled', { cacheDisabled: true });
  let bytes = 0;
  cdp.on('Network.loadingFinished', (e: { encodedDataLength: number }) => (bytes += e.encodedDataLength));
  await open();
  await page.waitForTimeout(400);
  await cdp.detach();
  return bytes / 1000;
}

/** What a page may weigh, kB. */
const mostOf = ({ name }: Route) => (name === 'Your course' ? 150 : name === 'In class' ? 300 : 400);

test('every page, with the longest names, keeps within its weight, is worked by keys and leaves no window', async ({
  page,
  browser,
}) => {
  test.setTimeout(400_000);
  const course = await crowded();
  await eachRoute(course, { page, browser }, async (at, route) => {
    await at.setViewportSize(PHONE);
    const kB = await weigh(at, () => openRoute(at, route));
    process.stdout.write(`  ${route.name}: ${kB.toFixed(1)} kB of ${mostOf(route)}\n`);
    expect.soft(kB, route.name).toBeLessThan(mostOf(route));
    await at.setViewportSize(DESKTOP);
    await byKeys(at, route);
    await inWindows(at, route);
  });
});

/** It has a title, one heading of the first order, and stops with a name, a ring, their size and in sight. */
async function byKeys(at: Page, route: Route) {
  await expect(at, route.path).toHaveTitle(new RegExp(`^${route.name} – (.* – )?Nimble Bell$`));
  await expect(at.locator('h1'), route.path).toHaveCount(1);
  await expect(at.locator('main#content'), route.path).toHaveCount(1);
  expect(await at.evaluate(() => document.documentElement.lang)).toBe('en');
  const { stops, faults } = await walkThrough(at);
  // Whoever asked for rest has it.
  const moving = () =>
    document.getAnimations().filter((a) => Number(a.effect?.getComputedTiming().duration) > 1).length;
  expect.soft(await at.evaluate(moving), `${route.name} moves`).toBe(0);
  expect(stops, route.name).toBeGreaterThan(2);
  expect.soft(faults, `${route.name}, ${stops} stops`).toEqual([]);
}

/** Nothing of it leaves a window, nor with its letters spaced. */
async function inWindows(at: Page, route: Route) {
  const fits = (where: string) =>
    expect
      .soft(async () => expect(await outside(at), `${route.name} ${where}`).toEqual([]))
      .toPass({ timeout: 2000 });
  for (const [width, height] of WINDOWS) {
    await at.setViewportSize({ width, height });
    await at.waitForTimeout(60);
    await fits(`at ${width} × ${height}`);
  }
  // Letters, words and lines as far apart as WCAG 1.4.12 says.
  await at.setViewportSize(PHONE);
  await at.addStyleTag({ content: SPACED });
  await fits('with its letters spaced');
}
