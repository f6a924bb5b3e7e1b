import { performance } from 'node:perf_hooks';
import { chromium, type Page } from '@playwright/test';
import config from '../../e2e/playwright.config';
import { account, byLink, makeCourse, ringIn, walkIn } from '../../e2e/support/course';
import { MAREN } from '../../e2e/support/people';
import { BASE_URL } from '../../e2e/support/product';
import { plainPdf } from '../../server/src/demo/plainPdf';
import { entering } from './room';
import { ms, percentile, type Figure } from './table';

const PAGES = 100;
const TURNS = 30;
const STUDENTS = 300;

/** Turns a page for everybody, and waits until it is drawn on another's; ms. */
async function turned(teacher: Page, student: Page, page: number): Promise<number> {
  const began = performance.now();
  await teacher.locator('[data-act=pageAfter]').click();
  await student.waitForFunction((p) => document.querySelector(`canvas[data-drawn="${p}"]`), page, {
    polling: 10,
  });
  return performance.now() - began;
}

/** A deck of a hundred pages: from the press to the page drawn at a student's, and a page had by a whole class at once. */
export async function slides(): Promise<Figure[]> {
  const course = await makeCourse({ students: STUDENTS });
  const maren = await account(MAREN);
  const pages = Array.from({ length: PAGES }, (_, i) => ({
    // Another file each time: what was taken apart once is so for good.
    title: `Page ${i + 1}, ${Date.now()}`,
    lines: Array.from({ length: 6 }, (_, l) => `Line ${l + 1} of page ${i + 1}: the stream turns later`),
    curve: Array.from({ length: 80 }, (_, x) => 0.5 + 0.4 * Math.sin(x / 6 + i)),
  }));
  const query = new URLSearchParams({ name: 'Hundred.pdf', session: course.session });
  const sent = await maren.post(`/api/courses/${course.id}/materials?${query}`, {
    ...{ data: plainPdf(pages), headers: { 'content-type': 'application/octet-stream' } },
  });
  const { id } = await sent.json();
  const browser = await chromium.launch(config.use!.launchOptions!);
  try {
    const context = await browser.newContext({ baseURL: BASE_URL, locale: 'en-GB' });
    const teacher = await context.newPage();
    await ringIn(teacher, course);
    const student = await walkIn(browser, course, 0, { baseURL: BASE_URL });
    const began = performance.now();
    let deck: { id: string } | null = null;
    while (!deck) {
      const made = await maren.post(`/api/sessions/${course.session}/decks/${id}`, { data: {} });
      deck = (await made.json()).deck;
    }
    const apart = performance.now() - began;
    await teacher.getByRole('radiogroup', { name: 'What the stage shows' }).getByText('Slides').click();
    await teacher.getByRole('button', { name: 'Show Hundred.pdf' }).click();
    await student.locator('canvas[data-drawn="1"]').waitFor();
    const took: number[] = [];
    for (let page = 2; page <= TURNS + 1; page++) took.push(await turned(teacher, student, page));
    const { members } = await entering(course);
    const apis = await Promise.all(course.students.map((s) => byLink(s.link)));
    const all = async (path: string) => {
      const from = performance.now();
      const answers = await Promise.all(apis.map((api) => api.get(path)));
      if (!answers.every((a) => a.ok()))
        throw new Error(`${path}: ${answers.find((a) => !a.ok())!.status()}`);
      return performance.now() - from;
    };
    const page = `/api/sessions/${course.session}/slides/${deck.id}/${TURNS + 1}`;
    await all('/api/health');
    const [had, plain] = [await all(page), await all('/api/health')];
    for (const { socket } of members) socket.disconnect();
    return [
      {
        what: `a page turned, until it is drawn at a student's: worst of ${TURNS} of ${PAGES} pages`,
        ours: ms(Math.max(...took)),
        peer: 'its median',
        theirs: ms(percentile(took, 0.5)),
        ratio: `${(Math.max(...took) / percentile(took, 0.5)).toFixed(2)} to 1`,
        wanted: 'at most 1 s',
      },
      {
        what: `a page had by ${STUDENTS} students at once, each asked for anew whether they may`,
        ours: ms(had),
        peer: 'as many answers without a question asked',
        theirs: ms(plain),
        ratio: `${(had / plain).toFixed(2)} to 1`,
        wanted: 'at most 2 s',
      },
      {
        what: `a PDF of ${PAGES} pages taken apart`,
        ours: ms(apart),
        peer: 'wanted',
        theirs: '10 s',
        ratio: `${(apart / 10_000).toFixed(2)} to 1`,
        wanted: 'at most 1 to 1',
      },
    ];
  } finally {
    await browser.close();
  }
}
