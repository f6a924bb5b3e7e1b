import { createHash } from 'node:crypto';
import { expect, request, test, type APIRequestContext } from '@playwright/test';
import type {
  Delivery,
  ExportInfo,
  MyCourse,
  NoteInfo,
  RecordingDetail,
  Watchers,
} from '@nimble-bell/core/api';
import { account, byLink, makeCourse } from './support/course';
import { MAREN } from './support/people';
import { BASE_URL } from './support/product';

/** The demo's course with recordings: its teacher, one of its newest whole recordings, and some of its students. */
async function demo() {
  const api = await account(MAREN);
  const courses = await (await api.get('/api/courses')).json();
  const { id } = courses.find((c: { code: string }) => c.code === 'NAV-210');
  const members = await (await api.get(`/api/courses/${id}/members`)).json();
  const students = members.filter((m: { role: string }) => m.role === 'student').slice(10, 13);
  const [one, other] = await Promise.all(students.map((s: { link: string }) => byLink(s.link)));
  const mine: MyCourse = await (await one.get('/api/my-course')).json();
  const recording = mine.recordings.filter((r) => r.state === 'ready' && r.lengthMs > 60_000).at(-1)!;
  return {
    api,
    id: id as string,
    one: one as APIRequestContext,
    other: other as APIRequestContext,
    recording,
  };
}

test('what is taken along: asked for ten times at once it is made once, for whoever asked, and not of what is left out since', async () => {
  const { api, id, one, other, recording } = await demo();
  const path = `/api/recordings/${recording.id}`;
  const rules = (said: object) =>
    api.put(`/api/courses/${id}/rules`, {
      data: { at: { layer: 'session', ids: [recording.sessionId] }, recording: said },
    });
  const ask = (by: APIRequestContext, kind: string) => by.post(`${path}/exports`, { data: { kind } });
  const all = async (by: APIRequestContext): Promise<ExportInfo[]> =>
    (await by.get(`${path}/exports`)).json();
  expect((await ask(one, 'archive.zip')).status()).toBe(403);
  expect((await rules({ studentsDownload: true })).status()).toBe(200);
  for (const kind of ['', 'film.exe', '../film.mp4', 'archive.zip\u0000'])
    expect((await ask(one, kind)).status()).toBe(422);
  const answers = await Promise.all(Array.from({ length: 10 }, () => ask(one, 'archive.zip')));
  const ids = new Set(await Promise.all(answers.map(async (a) => (await a.json()).id as string)));
  expect([answers.every((a) => a.status() === 201), ids.size]).toEqual([true, 1]);
  await expect.poll(async () => (await all(one))[0]?.state, { timeout: 30_000 }).toBe('ready');
  const [made] = await all(one);
  const saved = await one.get(made!.path!);
  expect(saved.status()).toBe(200);
  expect(
    createHash('sha256')
      .update(await saved.body())
      .digest('hex'),
  ).toBe(made!.sha256);
  // Another student has neither the list of it, nor the file by their own ticket; and ends nothing of it.
  expect(await all(other)).toEqual([]);
  const detail: RecordingDetail = await (await other.get(path)).json();
  const ticket = detail.mediaPath.slice(detail.mediaPath.indexOf('?'));
  expect((await other.get(`${path}/exports/${made!.id}/file${ticket}`)).status()).toBe(404);
  expect((await other.delete(`${path}/exports/${made!.id}`)).status()).toBe(404);
  // Of a recording that is less by now there is nothing that was more.
  expect((await rules({ leavesOut: ['names'] })).status()).toBe(200);
  expect((await one.get(made!.path!)).status()).toBe(404);
  expect(await all(one)).toEqual([]);
  expect((await rules({ leavesOut: null, studentsDownload: null })).status()).toBe(200);
  expect((await one.get(made!.path!)).status()).toBe(403);
});

test('what is listened to: an address of one’s own, with what one may take along, and nothing once it is replaced', async () => {
  const { api, id, one, other, recording } = await demo();
  const path = `/api/recordings/${recording.id}`;
  const rules = (said: object) =>
    api.put(`/api/courses/${id}/rules`, {
      data: { at: { layer: 'session', ids: [recording.sessionId] }, recording: said },
    });
  const address = async (by: APIRequestContext, data = {}): Promise<string> =>
    (await (await by.post(`${path}/listening`, { data })).json()).path;
  const nobody = await request.newContext({ baseURL: BASE_URL });
  const mine = await address(one);
  expect(await address(one)).toBe(mine);
  expect(await address(other)).not.toBe(mine);
  const feed = async (at = mine) => (await nobody.get(at)).text();
  // Downloads are off: nothing of it is to be had.
  expect(await feed()).not.toContain(recording.id);
  expect((await rules({ studentsDownload: true })).status()).toBe(200);
  await expect.poll(feed, { timeout: 30_000 }).toContain(`${recording.id}.mp3`);
  const sound = new URL(/url="([^"]+\.mp3)"/.exec(await feed())![1]!).pathname;
  const part = await nobody.get(sound, { headers: { range: 'bytes=0-2' } });
  expect([part.status(), part.headers()['content-type'], (await part.body()).toString()]).toEqual([
    206,
    'audio/mpeg',
    'ID3',
  ]);
  // Of another course, under another's address, and where downloads are off again: nothing.
  expect((await nobody.get(sound.replace(recording.id, 'aaaaaaaaaaaa'))).status()).toBe(404);
  expect((await rules({ studentsDownload: null })).status()).toBe(200);
  expect((await nobody.get(sound)).status()).toBe(404);
  const next = await address(one, { replace: true });
  expect((await nobody.get(mine)).status()).toBe(404);
  expect((await nobody.get(next)).status()).toBe(200);
});

test('who may watch: by whom alone and when is in force in the same moment, also for what plays already', async () => {
  const { api, id, one, other, recording } = await demo();
  const path = `/api/recordings/${recording.id}`;
  const rules = async (said: object) => {
    const at = { layer: 'session', ids: [recording.sessionId] };
    const answer = await api.put(`/api/courses/${id}/rules`, { data: { at, recording: said } });
    expect(answer.status()).toBe(200);
  };
  const listed = async (by: APIRequestContext) =>
    ((await (await by.get('/api/my-course')).json()) as MyCourse).recordings.some(
      (r) => r.id === recording.id,
    );
  const { member } = ((await (await other.get('/api/my-course')).json()) as MyCourse).me;
  const { mediaPath } = (await (await one.get(path)).json()) as RecordingDetail;
  const all = async () => [
    (await one.get(path)).status(),
    (await one.get(mediaPath)).status(),
    await listed(one),
    (await other.get(path)).status(),
    await listed(other),
  ];
  expect(await all()).toEqual([200, 200, true, 200, true]);
  await rules({ onlyFor: { groups: [], members: [member] } });
  expect(await all()).toEqual([403, 403, false, 200, true]);
  await rules({ onlyFor: null, watchForDays: 1 });
  expect(await all()).toEqual([403, 403, false, 403, false]);
  await rules({ watchForDays: null, watchAfterDays: 365 });
  expect(await all()).toEqual([403, 403, false, 403, false]);
  await rules({ watchAfterDays: null });
  expect(await all()).toEqual([200, 200, true, 200, true]);
});

test('a word to who missed a class goes to each alone, with their own way to the recording, and to nobody of another course', async () => {
  const { api, id, recording } = await demo();
  const { missed } = (await (await api.get(`/api/recordings/${recording.id}/watchers`)).json()) as Watchers;
  expect(missed.length).toBeGreaterThan(0);
  const text = 'You missed it.\n\nThe link leads there.';
  const word = (data: object) => api.post(`/api/courses/${id}/words`, { data: { text, ...data } });
  const members = missed.slice(0, 2).map((m) => m.member);
  expect(await (await word({ members, recording: recording.id })).json()).toEqual({ count: members.length });
  expect((await word({ members: [...members, 'aaaaaaaaaaaa'] })).status()).toBe(404);
  expect((await word({ members, recording: 'aaaaaaaaaaaa' })).status()).toBe(404);
  expect((await word({ members, text: '  ' })).status()).toBe(422);
  const sent = async () =>
    ((await (await api.get(`/api/courses/${id}/deliveries`)).json()) as Delivery[]).filter(
      (d) => d.topic === 'word' && d.state === 'sent',
    );
  await expect.poll(async () => (await sent()).length, { timeout: 20_000 }).toBe(members.length);
});

test('notes and links: odd, too long, racing, and with another course’s ids', async () => {
  const { one, other, recording } = await demo();
  const path = `/api/recordings/${recording.id}`;
  const note = (by: APIRequestContext, data: object) => by.post(`${path}/notes`, { data });
  for (const data of [
    {},
    { position: 1, text: '   ' },
    { position: -1, text: 'Before' },
    { position: 'soon', text: 'When' },
    { position: 1, text: 'x'.repeat(2001) },
    { position: 1, text: 'Hm', asks: 'yes' },
  ])
    expect((await note(one, data)).status()).toBe(422);
  const odd = '<script>alert(1)</script> \u202E “ü” 🚢\n=1+1';
  expect((await note(one, { position: 61_000, text: odd })).status()).toBe(201);
  const own = async (by: APIRequestContext): Promise<NoteInfo[]> => (await by.get(`${path}/notes`)).json();
  const kept = (await own(one)).find((n) => n.position === 61_000)!;
  expect(kept.text).toContain('<script>alert(1)</script>');
  expect(await own(other)).toEqual([]);
  // A note is no question: nobody answers it, not even who teaches.
  const maren = await account(MAREN);
  const answer = { data: { answer: 'No.' } };
  expect((await maren.put(`${path}/notes/${kept.id}/answer`, answer)).status()).toBe(404);
  expect((await maren.delete(`${path}/notes/${kept.id}`)).status()).toBe(404);
  expect((await one.delete(`${path}/notes/${kept.id}`)).status()).toBe(200);
  // Another course's teacher, with this one's ids.
  const stranger = await account('ines.calloway@saltmarsh.example');
  for (const what of ['notes', 'exports', 'shares', ''])
    expect((await stranger.get(`${path}/${what}`)).status()).toBe(403);
  const until = Date.parse('2026-12-01T00:00:00Z');
  expect((await stranger.post(`${path}/shares`, { data: { until } })).status()).toBe(403);
  expect((await one.post(`${path}/shares`, { data: { until } })).status()).toBe(403);
  for (const wrong of [0, -1, 1.5, 5e12, 'tomorrow', null])
    expect((await maren.post(`${path}/shares`, { data: { until: wrong } })).status()).toBe(422);
  // Thirty at once are no more than may be; each is taken back, and by its own recording alone.
  const made = await Promise.all(
    Array.from({ length: 30 }, () => maren.post(`${path}/shares`, { data: { until } })),
  );
  expect(made.filter((m) => m.status() === 201)).toHaveLength(20);
  const shares = await (await maren.get(`${path}/shares`)).json();
  const elsewhere = await makeCourse();
  expect((await maren.delete(`/api/recordings/${elsewhere.session}/shares/${shares[0].id}`)).status()).toBe(
    404,
  );
  for (const share of shares) expect((await maren.delete(`${path}/shares/${share.id}`)).status()).toBe(200);
  for (const code of [shares[0].path.replace('/shared/', ''), '%00', "' OR 1=1 --", '..%2F..%2Fetc'])
    expect((await one.get(`/api/shared/${code}`)).status()).toBe(404);
});
