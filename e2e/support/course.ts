import { expect, request, type APIRequestContext, type Browser, type Page } from '@playwright/test';
import type { CourseDetail } from '@nimble-bell/core/api';
import { BASE_URL } from './product';
import { classRows, MAREN, PASSWORD, person, signIn } from './people';

export interface MadeCourse {
  id: string;
  session: string;
  /** Students in the order of the class list's names, with the path of their link. */
  students: { id: string; name: string; link: string }[];
}

/** Requests as an account. */
export async function account(email: string): Promise<APIRequestContext> {
  const api = await request.newContext({ baseURL: BASE_URL });
  const answer = await api.post('/api/sign-in', { data: { email, password: PASSWORD } });
  expect(answer.ok()).toBe(true);
  return api;
}

export const byLink = (link: string): Promise<APIRequestContext> =>
  request.newContext({
    baseURL: BASE_URL,
    extraHTTPHeaders: { authorization: `Link ${link.replace('/in/', '')}` },
  });

/** Adds a series by the teacher's own request, and publishes it unless it is to stay a draft. Gives its id. */
export async function addSeries(
  api: APIRequestContext,
  course: string,
  series: object,
  options: { draft?: boolean } = {},
): Promise<string> {
  const plan = async (edit: object) => {
    const answer = await api.post(`/api/courses/${course}/plan`, { data: edit });
    expect(answer.ok(), await answer.text()).toBe(true);
    return answer.json();
  };
  const { made } = await plan({ edit: 'add-series', series: [series] });
  if (!options.draft) await plan({ edit: 'publish', ids: made });
  return made[0];
}

/** A course as its teacher sees it. */
export async function detailOf(api: APIRequestContext, id: string): Promise<CourseDetail> {
  return (await api.get(`/api/courses/${id}`)).json();
}

let made = 0;

/** A course with a session this evening, students, and what else is asked for; by the teacher's own requests. */
export async function makeCourse(
  options: {
    students?: number;
    /** People of this course alone, whom a test may rename or forget. */
    apart?: boolean;
    limits?: Record<string, string>;
    record?: boolean;
    /** When it meets; on Tuesday evenings unless it says so. */
    meets?: { day: string; start: string; minutes: number };
  } = {},
): Promise<MadeCourse> {
  const api = await account(MAREN);
  const post = async (path: string, data: unknown, method: 'post' | 'put' = 'post') => {
    const answer = await api[method](path, { data });
    expect(answer.ok(), `${path}: ${await answer.text()}`).toBe(true);
    return answer.json();
  };
  const code = `T-${process.pid % 10_000}-${++made}-${Date.now() % 100_000}`;
  const { id } = await post('/api/courses', { code, title: 'Made for a test' });
  const days = [options.meets ?? { day: 'tuesday', start: '18:30', minutes: 80 }];
  const pattern = { kind: 'weekly', days, ends: { by: 'term' } };
  await addSeries(api, id, { title: 'Lecture', pattern });
  const rows = classRows(options.students ?? 3, options.apart ? `.${id}` : '');
  if (rows.length) await post(`/api/courses/${id}/members`, { edit: 'import', rows });
  const course = await (await api.get(`/api/courses/${id}`)).json();
  if (options.limits)
    await post(`/api/courses/${id}/limits`, { limits: { ...course.limits, ...options.limits } }, 'put');
  if (options.record)
    await post(
      `/api/courses/${id}/recording-plan`,
      { automatic: true, keepUntil: '2027-03-01', studentsWatch: true, studentsDownload: false },
      'put',
    );
  const { now } = await (await api.get('/api/me')).json();
  const session = course.sessions.find((s: { endsAt: number }) => s.endsAt > now).id;
  const members = await (await api.get(`/api/courses/${id}/members`)).json();
  await api.dispose();
  return { id, session, students: members.filter((m: { role: string }) => m.role === 'student') };
}

/**
 * Through the door that a page opened straight at a room stands before. Whoever has done something on the page already
 * is inside: browsers play sound then, and this test's own questions may count as that.
 */
export async function throughDoor(page: Page, key?: 'Enter'): Promise<void> {
  const door = page.getByRole('button', { name: 'Enter the room' });
  const desk = page.getByRole('group', { name: 'Your desk' });
  const before = page.getByRole('heading', { name: /^(The door is shut|You have knocked)/ });
  // Where thirty come at once, on a machine that draws five browsers, one waits a while.
  await expect(door.or(desk).or(before).first()).toBeVisible({ timeout: 30_000 });
  if (await door.isVisible()) await (key ? door.press(key) : door.click());
}

/** The teacher enters the room and rings in, with the named switches on. */
export async function ringIn(page: Page, course: MadeCourse, switches: string[] = []): Promise<void> {
  await signIn(page, MAREN);
  await page.goto(`/room/${course.session}`);
  await throughDoor(page);
  await page.getByRole('button', { name: 'Ring in' }).click();
  await expect(page.getByRole('button', { name: 'Dismiss', exact: true })).toBeVisible();
  for (const name of switches) await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
}

/** A student walks into the room, in a browser of their own. */
export async function walkIn(
  browser: Browser,
  course: MadeCourse,
  student = 0,
  options: Parameters<typeof person>[1] = {},
): Promise<Page> {
  const [page] = await person(browser, options);
  await page.goto(`${course.students[student]!.link}/room/${course.session}`);
  await throughDoor(page);
  await expect(page.getByRole('group', { name: 'Your desk' })).toBeVisible();
  return page;
}

/** A session's recording, once it can be watched. */
export async function readyRecording(api: APIRequestContext, session: string): Promise<string> {
  let recording: { id: string; state: string } | undefined;
  await expect
    .poll(
      async () => {
        const detail = await (await api.get(`/api/sessions/${session}`)).json();
        recording = detail.recordings[0];
        return recording?.state;
      },
      { timeout: 60_000 },
    )
    .toBe('ready');
  return recording!.id;
}

export async function dismiss(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Dismiss' }).click();
  await page.getByRole('button', { name: 'Dismiss for everyone' }).click();
  await expect(page.getByRole('heading', { name: 'The class is dismissed' })).toBeVisible();
}
