import { chromium, type Page } from '@playwright/test';
import config from '../../e2e/playwright.config';
import { makeCourse, ringIn, type MadeCourse } from '../../e2e/support/course';
import { BASE_URL } from '../../e2e/support/product';
import { enter, type Member } from './roomLine';
import { ms, percentile, type Figure } from './table';
import { workMs } from './work';

const FRAME_MS = 1000 / 60;
const SIZE = { width: 1280, height: 800 };

/** A teacher's page in a class that is on, and the lines of its first students. */
async function inClass<T>(
  of: { students: number; here: number; limits?: Record<string, string> },
  work: (page: Page, members: (Member & { id: string })[]) => Promise<T>,
): Promise<T> {
  const course: MadeCourse = await makeCourse({ students: of.students, limits: of.limits ?? {} });
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await browser.newPage({ baseURL: BASE_URL, viewport: SIZE });
    await ringIn(page, course);
    const members = await Promise.all(
      course.students.slice(0, of.here).map(async ({ id, link }) => ({
        id,
        ...(await enter(course.session, { auth: { link: link.replace('/in/', '') } })),
      })),
    );
    const answer = await work(page, members);
    for (const { socket } of members) socket.disconnect();
    return answer;
  } finally {
    await browser.close();
  }
}

/** Hands go up and down in a class of 300: how many seats are touched by one, and what it costs the page. */
export async function oneSeat(): Promise<Figure[]> {
  const { touched, times } = await inClass({ students: 300, here: 20 }, async (page, members) => {
    const client = await page.context().newCDPSession(page);
    await client.send('Performance.enable');
    await page.waitForTimeout(1500);
    await page.evaluate(() => {
      const seen = new Set<Element>();
      Object.assign(window, { touchedSeats: seen });
      new MutationObserver((records) => {
        for (const { target } of records) {
          const element = target instanceof Element ? target : target.parentElement;
          const seat = element?.closest('[data-testid=seat]');
          if (seat) seen.add(seat);
        }
      }).observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true });
    });
    const touched: number[] = [];
    const times: number[] = [];
    for (const { id, send } of [...members, ...members]) {
      const up = times.length < members.length;
      const before = await workMs(client);
      await send(up ? { type: 'raiseHand' } : { type: 'lowerHand', member: id });
      await page.waitForTimeout(120);
      times.push((await workMs(client)) - before);
      touched.push(
        await page.evaluate(() => {
          const seen = (window as unknown as { touchedSeats: Set<Element> }).touchedSeats;
          const count = seen.size;
          seen.clear();
          return count;
        }),
      );
    }
    return { touched, times };
  });
  const seats = Math.max(...touched);
  return [
    {
      what: "one seat's change in a class of 300: seats touched, and the page's work, p50",
      ours: `${seats}, ${ms(percentile(times, 0.5))}`,
      peer: 'all seats, a frame',
      theirs: `300, ${ms(FRAME_MS)}`,
      ratio: `${(percentile(times, 0.5) / FRAME_MS).toFixed(2)} frames`,
      wanted: '1 seat',
    },
  ];
}

const IDLE_S = 20;

/** A class of 300 in which nothing happens: what the page of whoever teaches does all the same, a second. */
export async function idleCrowd(): Promise<Figure[]> {
  const work = await inClass({ students: 300, here: 300 }, async (page) => {
    const client = await page.context().newCDPSession(page);
    await client.send('Performance.enable');
    await page.waitForTimeout(5000);
    const before = await workMs(client);
    await page.waitForTimeout(IDLE_S * 1000);
    return ((await workMs(client)) - before) / IDLE_S;
  });
  return [
    {
      what: `a page with 300 seats in which nothing happens, main thread a second, over ${IDLE_S} s`,
      ours: ms(work),
      peer: 'a second',
      theirs: '1000 ms',
      ratio: `${(work / 10).toFixed(2)} %`,
      wanted: 'at most 3 %',
    },
  ];
}

/** As many by each of a class of 30. A board as a class fills it, and one that is fuller than any. */
export const penOverStrokes = async (): Promise<Figure[]> => [
  ...(await penOver(300)),
  ...(await penOver(5010)),
];

/** A pen moves over a board of so many strokes: the main thread's time for each frame, from the pen's move until it is drawn. */
async function penOver(strokes: number): Promise<Figure[]> {
  const { pen, nearer, moved, scrolled } = await inClass(
    { students: 30, here: 30, limits: { draw: 'open' } },
    async (page, members) => {
      await page.getByText('Board', { exact: true }).click();
      for (let i = 0; i < strokes / members.length; i++)
        await Promise.all(members.map(({ send }, m) => drawn(send, scribble(i * members.length + m))));
      const board = page.getByRole('img', { name: `Board with ${strokes} strokes` });
      await board.waitFor({ timeout: 120_000 });
      await page.waitForTimeout(500);
      await page.evaluate(watchFrames);
      const box = (await board.boundingBox())!;
      await page.mouse.move(box.x + 40, box.y + 40);
      await page.mouse.down();
      for (let i = 0; i < 240; i++)
        await page.mouse.move(
          box.x + box.width * (0.5 + 0.4 * Math.sin(i / 20)),
          box.y + box.height * (0.5 + 0.4 * Math.cos(i / 13)),
        );
      await page.mouse.up();
      const pen = await page.evaluate(() => (window as unknown as { frameTimes: number[] }).frameTimes);
      const nearer = await twoFingers(page, box, apart(box));
      await page.getByRole('button', { name: 'Closer', disabled: true }).waitFor();
      await page.waitForTimeout(1000);
      const moved = await twoFingers(page, box, about());
      return { pen, nearer, moved, scrolled: await page.evaluate(movesAbout) };
    },
  );
  return [
    framesOf(`a pen over ${strokes} strokes, main thread a frame`, pen),
    framesOf(
      `coming nearer to a board of ${strokes} strokes by two fingers, up to 4 times as large, from frame to frame`,
      nearer,
    ),
    framesOf(`moving about on it by two fingers, drawn 4 times as large, from frame to frame`, moved),
    framesOf(`scrolling it by a script, half of it in 30 frames, from frame to frame`, scrolled),
  ];
}

function framesOf(what: string, frames: readonly number[]): Figure {
  const most = Math.max(...frames);
  // A frame comes a little early or late by itself.
  const late = frames.filter((f) => f > 1.1 * FRAME_MS).length;
  return {
    what: `${what}, the longest of ${frames.length} (p50 ${ms(percentile(frames, 0.5))}, p99 ${ms(percentile(frames, 0.99))}, ${late} above a frame)`,
    ours: ms(most),
    peer: 'a frame at 60 Hz',
    theirs: ms(FRAME_MS),
    ratio: `${(most / FRAME_MS).toFixed(2)} frames`,
    wanted: 'at most 16.7 ms',
  };
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}
/** Where two fingers are: the middle between them as fractions of the board's window, and how far apart, px. */
interface Two {
  at: readonly [x: number, y: number];
  apart: number;
}

/** Two fingers on the board, a step with each word to the page; gives how long each frame was until they are lifted, ms. */
async function twoFingers(page: Page, box: Box, steps: readonly Two[]): Promise<number[]> {
  const client = await page.context().newCDPSession(page);
  const points = ({ at: [x, y], apart }: Two) =>
    [-1, 1].map((side, id) => ({
      x: box.x + box.width * x + (side * apart) / 2,
      y: box.y + box.height * y,
      id,
    }));
  await page.evaluate(() => {
    const times: number[] = [];
    let last = performance.now();
    const frame = (now: number) => {
      times.push(now - last);
      last = now;
      requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
    Object.assign(window, { fingerTimes: times });
  });
  const [first, ...rest] = steps;
  await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: points(first!) });
  for (const two of rest)
    await client.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: points(two) });
  const times = await page.evaluate(() => (window as unknown as { fingerTimes: number[] }).fingerTimes);
  await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await client.detach();
  return times.slice(1);
}

/** They go apart until the board is 4 times as large. */
const apart = ({ width }: Box): Two[] =>
  Array.from({ length: 120 }, (_, i) => ({ at: [0.5, 0.5], apart: 100 + (i / 119) * (width * 0.9 - 100) }));
/** They go about in the window, as far apart as they are. */
const about = (): Two[] =>
  Array.from({ length: 240 }, (_, i) => ({
    at: [0.5 + 0.4 * Math.sin(i / 20), 0.5 + 0.4 * Math.sin(i / 13)],
    apart: 120,
  }));

/** In the page: moves about on what is drawn large, a step with each frame; gives how long each frame was, ms. */
function movesAbout(): Promise<number[]> {
  const around = document.querySelector('[aria-label^="The board from nearer"]')!;
  const [width, height] = [around.scrollWidth, around.scrollHeight];
  const times: number[] = [];
  return new Promise((resolve) => {
    let last = performance.now();
    const frame = (now: number) => {
      times.push(now - last);
      last = now;
      const i = times.length;
      if (i > 240) return resolve(times.slice(1));
      around.scrollTo(width * (0.4 + 0.35 * Math.sin(i / 20)), height * (0.4 + 0.35 * Math.cos(i / 13)));
      requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });
}

/** Draws a stroke, again where one has drawn too much at once. */
async function drawn(send: Member['send'], points: number[]) {
  while (!(await send({ type: 'draw', stroke: { points, colour: 'ink' } })).ok)
    await new Promise((resolve) => setTimeout(resolve, 200));
}

/** A stroke of 60 points somewhere on the board, as fractions of it: as large as a letter, each tenth as large as a figure. */
const scribble = (n: number): number[] => {
  const size = n % 10 ? 0.02 : 0.2;
  const [x, y] = [((n * 617) % 1009) / 1009, ((n * 389) % 997) / 997].map((at) => at * (1 - size));
  return Array.from({ length: 120 }, (_, k) => {
    const round = 0.5 + 0.5 * (k % 2 ? Math.cos(k / 7 + n) : Math.sin(k / 11 + n));
    return Math.round((k % 2 ? y! : x!) * 10_000 + round * size * 10_000) / 10_000;
  });
};

/** In the page: times each frame from the first move of the pen in it until what follows its painting. */
function watchFrames() {
  const times: number[] = [];
  let began: number | null = null;
  const { port1, port2 } = new MessageChannel();
  port2.onmessage = () => {
    if (began !== null) times.push(performance.now() - began);
    began = null;
  };
  window.addEventListener('pointermove', () => (began ??= performance.now()), { capture: true });
  const frame = () => {
    if (began !== null) port1.postMessage(null);
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);
  Object.assign(window, { frameTimes: times });
}
