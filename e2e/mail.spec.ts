import { expect, test } from '@playwright/test';
import { account, makeCourse } from './support/course';
import { MAREN } from './support/people';
import { pidOf } from './support/product';

test('the server is killed while invitations go out: each person has exactly one', async ({ request }) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 120 });
  const api = await account(MAREN);
  const { code } = await (await api.get(`/api/courses/${course.id}`)).json();
  expect((await (await api.post(`/api/courses/${course.id}/invitations`)).json()).queued).toBe(120);
  const letters = async (): Promise<{ to: string }[]> => {
    const answer = await request.get('/api/mailbox').catch(() => null);
    const all = answer?.ok() ? await answer.json() : [];
    return all.filter((l: { subject: string }) => l.subject.startsWith(`${code} `));
  };
  await expect.poll(async () => (await letters()).length, { intervals: [30] }).toBeGreaterThan(10);
  const sent = (await letters()).length;
  process.kill(pidOf('app'), 'SIGKILL');
  await expect.poll(async () => (await letters()).length, { timeout: 60_000 }).toBe(120);
  expect(sent).toBeLessThan(120);
  const states = async () =>
    (await (await api.get(`/api/courses/${course.id}/deliveries`)).json()).filter(
      (d: { state: string }) => d.state === 'sent',
    ).length;
  await expect.poll(states, { timeout: 20_000 }).toBe(120);
  expect(new Set((await letters()).map((l) => l.to)).size).toBe(120);
});

test('mail that is not taken is tried again and said, and arrives when the mailbox is back', async () => {
  test.setTimeout(60_000);
  const course = await makeCourse({ students: 2 });
  const api = await account(MAREN);
  process.kill(pidOf('mailbox'), 'SIGKILL');
  await api.post(`/api/courses/${course.id}/invitations`);
  const deliveries = async () => (await api.get(`/api/courses/${course.id}/deliveries`)).json();
  await expect
    .poll(async () => (await deliveries()).map((d: { state: string }) => d.state), { timeout: 40_000 })
    .toEqual(['sent', 'sent']);
});
