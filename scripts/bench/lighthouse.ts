import { chromium } from '@playwright/test';
import lighthouse, { defaultConfig, desktopConfig, type Flags } from 'lighthouse';
import config from '../../e2e/playwright.config';
import { account } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { BASE_URL, PORT } from '../../e2e/support/product';
import type { Figure } from './table';

const DEBUGGER = PORT + 5;
/** From this on Lighthouse takes a machine for a quick one at a desk; its score is of a quarter of that. */
const DESK = 1500;
/** How much slower than that its telephone is. */
const SLOWED = 4;
/** Its slow line, as it comes. */
const mobileThrottling = defaultConfig.settings!.throttling!;
const CATEGORIES = ['performance', 'accessibility', 'best-practices'] as const;

interface Visit {
  what: string;
  path: string;
  desktop?: boolean;
  cookie?: string;
  /** For each category. */
  wanted: readonly [number, number, number];
}

/** Lighthouse's own scores of a few pages, each beside what is wanted: one run each, on this machine as it is. */
export async function lighthouseScores(): Promise<Figure[]> {
  const api = await account(MAREN);
  const demo = await (await api.get('/api/demo')).json();
  const link: string = demo.links[0].path;
  const courses = await (await api.get('/api/courses')).json();
  const course: string = courses.find((c: { code: string }) => c.code === 'NAV-210').id;
  const mine = await (
    await api.get('/api/my-course', { headers: { authorization: `Link ${link.replace('/in/', '')}` } })
  ).json();
  const recording: string = mine.recordings.find((r: { state: string }) => r.state === 'ready').id;
  const { cookies } = await api.storageState();
  const cookie = cookies.map((c) => `${c.name}=${c.value}`).join('; ');
  const visits: Visit[] = [
    { what: 'a student’s page, mobile', path: link, wanted: [90, 100, 100] },
    { what: 'the entrance, mobile', path: '/', wanted: [90, 100, 100] },
    { what: 'watch, mobile', path: `${link}/watch/${recording}`, wanted: [90, 100, 100] },
    {
      what: 'the plan, desktop',
      path: `/course/${course}/plan`,
      desktop: true,
      cookie,
      wanted: [95, 100, 100],
    },
  ];
  const options = config.use!.launchOptions!;
  const browser = await chromium.launch({
    ...options,
    args: [...(options.args ?? []), `--remote-debugging-port=${DEBUGGER}`],
  });
  const figures: Figure[] = [];
  try {
    for (const visit of visits) figures.push(...(await scoresOf(visit)));
  } finally {
    await browser.close();
  }
  return figures;
}

/** One visit as Lighthouse comes: the machine's own index, and the scores. */
async function visited({ path, desktop, cookie }: Visit, more: Flags = {}) {
  const flags: Flags = {
    ...{ port: DEBUGGER, logLevel: 'silent', onlyCategories: [...CATEGORIES] },
    ...(cookie ? { extraHeaders: { Cookie: cookie } } : {}),
    ...more,
  };
  const { lhr } = (await lighthouse(`${BASE_URL}${path}`, flags, desktop ? desktopConfig : undefined))!;
  return {
    index: Math.round(lhr.environment.benchmarkIndex),
    scores: CATEGORIES.map((category) => Math.round(100 * (lhr.categories[category]?.score ?? 0))),
  };
}

async function scoresOf(visit: Visit): Promise<Figure[]> {
  const { what, desktop, wanted } = visit;
  const { index, scores } = await visited(visit);
  // How quick this machine was meanwhile: its scores are worth as much.
  const machine: Figure = {
    what: `the machine meanwhile, by Lighthouse's own index: ${what}`,
    ours: String(index),
    peer: 'a quick desk machine, by its documentation',
    theirs: String(DESK),
    ratio: `${(index / DESK).toFixed(2)} to 1`,
    wanted: '',
  };
  const figure = (of: string, score: number, least: number): Figure => ({
    what: `Lighthouse of ${what}: ${of}`,
    ours: String(score),
    peer: 'wanted',
    theirs: String(least),
    ratio: `${(score / least).toFixed(2)} to 1`,
    wanted: 'at least 1 to 1',
  });
  const own = CATEGORIES.map((category, i) => figure(category, scores[i]!, wanted[i]!));
  if (desktop) return [machine, ...own];
  // Its telephone is a quick desk machine slowed down four times: this one is slowed down by as much as makes it that one.
  const slowed = Math.max(1, (SLOWED * index) / DESK);
  const alike = await visited(visit, { throttling: { ...mobileThrottling, cpuSlowdownMultiplier: slowed } });
  const of = `performance, slowed ${slowed.toFixed(1)} times to its telephone`;
  return [machine, ...own, figure(of, alike.scores[0]!, wanted[0])];
}
