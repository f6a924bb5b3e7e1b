import { chromium } from '@playwright/test';
import lighthouse, { desktopConfig, type Flags } from 'lighthouse';
import config from '../../e2e/playwright.config';
import { account } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { BASE_URL, PORT } from '../../e2e/support/product';
import type { Figure } from './table';

const DEBUGGER = PORT + 5;
/** From this on Lighthouse takes a machine for a quick one at a desk; its score is of a quarter of that. */
const DESK = 1500;
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

async function scoresOf({ what, path, desktop, cookie, wanted }: Visit): Promise<Figure[]> {
  const flags: Flags = {
    port: DEBUGGER,
    logLevel: 'silent',
    onlyCategories: [...CATEGORIES],
    ...(cookie ? { extraHeaders: { Cookie: cookie } } : {}),
  };
  const result = await lighthouse(`${BASE_URL}${path}`, flags, desktop ? desktopConfig : undefined);
  // How quick this machine was meanwhile: its scores are worth as much.
  const index = Math.round(result!.lhr.environment.benchmarkIndex);
  const machine: Figure = {
    what: `the machine meanwhile, by Lighthouse's own index: ${what}`,
    ours: String(index),
    peer: 'a quick desk machine, by its documentation',
    theirs: String(DESK),
    ratio: `${(index / DESK).toFixed(2)} to 1`,
    wanted: '',
  };
  const scores = CATEGORIES.map((category, i): Figure => {
    const score = Math.round(100 * (result!.lhr.categories[category]?.score ?? 0));
    return {
      what: `Lighthouse of ${what}: ${category}`,
      ours: String(score),
      peer: 'wanted',
      theirs: String(wanted[i]),
      ratio: `${(score / wanted[i]!).toFixed(2)} to 1`,
      wanted: 'at least 1 to 1',
    };
  });
  return [machine, ...scores];
}
