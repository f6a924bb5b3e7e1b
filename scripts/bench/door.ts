import { performance } from 'node:perf_hooks';
import { chromium } from '@playwright/test';
import config from '../../e2e/playwright.config';
import { account, makeCourse, throughDoor, type MadeCourse } from '../../e2e/support/course';
import { MAREN, signIn } from '../../e2e/support/people';
import { BASE_URL } from '../../e2e/support/product';
import { open } from './roomLine';
import { ms, type Figure } from './table';

const PEOPLE = 300;

/** So many stand at the door of a room; gives their lines, and a promise of when the last is in. */
async function knockers(course: MadeCourse) {
  let inside = 0;
  const sockets = await Promise.all(
    course.students.map((s) =>
      open(BASE_URL, {
        path: '/live',
        query: { room: course.session },
        auth: { link: s.link.replace('/in/', '') },
      }),
    ),
  );
  const all = new Promise<number>((resolve) => {
    for (const socket of sockets) {
      const enter = async () => {
        const reply = await socket.emitWithAck('enter', { session: course.session, after: 0 });
        if (reply.ok && !reply.porch && ++inside === sockets.length) resolve(performance.now());
      };
      socket.on('door', () => void enter());
      void enter();
    }
  });
  return { sockets, all };
}

/** 300 knock at once before a teacher's page, and are let in by one press. */
export async function knocking(): Promise<Figure[]> {
  const course = await makeCourse({ students: PEOPLE });
  const api = await account(MAREN);
  await api.put(`/api/courses/${course.id}/door`, { data: { classList: 'knocks' } });
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await browser.newPage({ baseURL: BASE_URL, viewport: { width: 1280, height: 800 } });
    await signIn(page, MAREN);
    await page.goto(`/room/${course.session}`);
    await throughDoor(page);
    await page.getByRole('button', { name: 'Ring in' }).click();
    await page.waitForTimeout(1000);
    await page.evaluate(() => {
      window.held = [];
      new PerformanceObserver((list) => {
        for (const e of list.getEntries()) window.held.push(e.duration);
      }).observe({ type: 'longtask' });
    });
    const { sockets, all } = await knockers(course);
    await page.getByRole('region', { name: `At the door: ${PEOPLE}` }).waitFor({ timeout: 30_000 });
    const began = performance.now();
    await page.getByRole('button', { name: `Let in all ${PEOPLE}` }).click();
    const took = (await all) - began;
    await page.waitForTimeout(1500);
    const held = await page.evaluate(() => window.held);
    for (const s of sockets) s.disconnect();
    const longest = Math.max(0, ...held);
    return [
      {
        what: `${PEOPLE} who knock are let in by one press, until the last is in`,
        ours: ms(took),
        peer: 'the limit',
        theirs: '2 s',
        ratio: `${(took / 2000).toFixed(2)} to 1`,
        wanted: 'at most 2 s',
      },
      {
        what: `the teacher’s page meanwhile is held at most (tasks over 50 ms: ${held.length})`,
        ours: ms(longest),
        peer: 'the limit',
        theirs: '50 ms',
        ratio: `${(longest / 50).toFixed(2)} to 1`,
        wanted: 'at most 50 ms',
      },
    ];
  } finally {
    await browser.close();
    await api.dispose();
  }
}

declare global {
  interface Window {
    held: number[];
  }
}
