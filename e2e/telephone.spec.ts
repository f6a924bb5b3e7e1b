import { randomInt, randomUUID } from 'node:crypto';
import { expect, test, type Page } from '@playwright/test';
import { rowOf } from '@nimble-bell/core/limits';
import { io, type Socket } from 'socket.io-client';
import { account, dismiss, makeCourse, ringIn, walkIn, type MadeCourse } from './support/course';
import { cookie, live } from './support/live';
import { MAREN, person, seat } from './support/people';
import { BASE_URL } from './support/product';
import { HAVING, PHASES, verdictsRead, type Having } from './support/verdicts';

/** Gives a course a line of its own, and each of its students' PINs. */
async function withLine(course: MadeCourse) {
  const api = await account(MAREN);
  const number = `+1 902 555 ${randomInt(1000, 9999)}`;
  const path = `/api/courses/${course.id}`;
  expect((await api.put(`${path}/telephone`, { data: { number } })).ok()).toBe(true);
  const members: { id: string; pin: string }[] = await (await api.get(`${path}/members`)).json();
  const pins = course.students.map((s) => members.find((m) => m.id === s.id)!.pin);
  return { api, number, pins };
}

/** Keeps every connection that a page makes, so that its sound can be measured. */
const watchSound = (page: Page) =>
  page.addInitScript(() => {
    const all: RTCPeerConnection[] = [];
    Object.assign(window, { connections: all });
    window.RTCPeerConnection = class extends RTCPeerConnection {
      constructor(...args: ConstructorParameters<typeof RTCPeerConnection>) {
        super(...args);
        all.push(this);
      }
    };
  });

/** The energy of all sound that reaches a page in a second. */
async function soundIn(page: Page): Promise<number> {
  const energy = () =>
    page.evaluate(async () => {
      const { connections } = window as unknown as { connections: RTCPeerConnection[] };
      let sum = 0;
      for (const pc of connections.filter((c) => c.connectionState !== 'closed'))
        (await pc.getStats()).forEach((s: { type: string; totalAudioEnergy?: number }) => {
          if (s.type === 'inbound-rtp') sum += s.totalAudioEnergy ?? 0;
        });
      return sum;
    });
  const before = await energy();
  await page.waitForTimeout(1000);
  return (await energy()) - before;
}
const HEARD = 1e-4;

const says = (phone: Page, words: string | RegExp) =>
  expect(phone.getByRole('region', { name: 'The call' }).getByRole('listitem').last()).toContainText(words, {
    timeout: 15_000,
  });
const key = (phone: Page, keys: string) => phone.keyboard.type(keys, { delay: 90 });

test('a call: a wrong PIN, the right one, hand and microphone by keys, heard both ways, hush, hung up, roll', async ({
  browser,
  page,
}) => {
  test.setTimeout(120_000);
  const course = await makeCourse({ students: 2, apart: true });
  const { api, number, pins } = await withLine(course);
  await watchSound(page);
  await ringIn(page, course);
  const ben = await walkIn(browser, course, 1);

  const [phone] = await person(browser);
  await watchSound(phone);
  await phone.goto('/telephone');
  await phone.getByRole('combobox', { name: 'Number to call' }).click();
  await phone.getByRole('option', { name: number }).click();
  await phone.getByRole('button', { name: 'Call' }).click();
  await says(phone, 'Please key your PIN');
  // What the line says is spoken: the caller's one track carries it.
  expect(await soundIn(phone)).toBeGreaterThan(HEARD);
  await key(phone, '12*00000000');
  await says(phone, 'not known on this line');
  await key(phone, pins[0]!);
  await says(phone, 'Your microphone is off.');
  const ana = seat(page, 'Ana Lanyon');
  await expect(ana).toHaveAttribute('data-here', 'true');
  await expect(ana).toHaveAttribute('aria-label', /by telephone/);

  await key(phone, '1');
  await says(phone, 'Your hand is raised.');
  await expect(page.getByRole('heading', { name: 'Hands (1)' })).toBeVisible();
  await key(phone, '2');
  await says(phone, 'Speaking is by hand');
  await page.getByRole('button', { name: 'Give the floor' }).first().click();
  await says(phone, 'You have the floor.');
  await key(phone, '2');
  await says(phone, 'Your microphone is on.');
  // Heard by those in class, and seen by the teacher to speak.
  await expect(ana).toHaveAttribute('data-speaking', 'true');
  await expect.poll(() => soundIn(page), { timeout: 15_000 }).toBeGreaterThan(HEARD);
  await key(phone, '4');
  await says(phone, 'You have the floor. Your microphone is on, and no other.');

  // Hush closes the caller at the relay; lifting brings back what was.
  await page.getByRole('button', { name: 'Hush' }).click();
  await says(phone, /hushed the room/);
  await expect.poll(() => soundIn(page), { timeout: 15_000 }).toBeLessThan(HEARD / 10);
  await key(phone, '3');
  await says(phone, 'You may not speak now.');
  await page.getByRole('button', { name: 'Lift' }).click();
  await expect.poll(() => soundIn(page), { timeout: 15_000 }).toBeGreaterThan(HEARD);

  // The teacher is heard on the telephone, by the one track that there is.
  await key(phone, '2');
  await says(phone, 'Your microphone is off.');
  await expect.poll(() => soundIn(phone), { timeout: 15_000 }).toBeLessThan(HEARD / 10);
  await page.getByRole('button', { name: /^Microphone/ }).click();
  await expect.poll(() => soundIn(phone), { timeout: 15_000 }).toBeGreaterThan(HEARD);

  await phone.getByRole('button', { name: 'Hang up' }).click();
  await expect(ana).toHaveAttribute('data-here', 'false');
  await expect(seat(ben, 'Ana Lanyon')).toHaveAttribute('data-here', 'false');
  await dismiss(page);
  const { roll } = await (await api.get(`/api/sessions/${course.session}`)).json();
  const line = roll.find((l: { member: string }) => l.member === course.students[0]!.id);
  expect(line).toMatchObject({ state: 'present' });
  await api.dispose();
});

/** A telephone without a page: it says what it was told, and has no sound. */
function rawCall(number: string, caller: string | null) {
  const socket: Socket = io(`${BASE_URL}/telephone`, {
    path: '/live',
    transports: ['websocket'],
    forceNew: true,
  });
  const said: string[] = [];
  socket.on('spoken', ({ words }: { words: string }) => said.push(words));
  socket.on('offer', (_what: unknown, reply: (offer: object) => void) => reply({ sdp: OFFER }));
  const ended = new Promise<void>((resolve) => socket.on('disconnect', () => resolve()));
  socket.emit('dial', { dialled: number, caller });
  return {
    said,
    ended,
    keys: (keys: string) => [...keys].forEach((k) => socket.emit('key', k)),
    up: () => socket.disconnect(),
  };
}
/** One track that is heard, as a browser offers it. */
let OFFER = '';
async function makeOffer(page: Page) {
  await page.goto('/telephone');
  OFFER = await page.evaluate(async () => {
    const pc = new RTCPeerConnection();
    pc.addTransceiver('audio', { direction: 'recvonly' });
    await pc.setLocalDescription();
    await new Promise((resolve) => setTimeout(resolve, 800));
    return pc.localDescription!.sdp;
  });
}

test('wrong PINs are limited by caller, for right ones too; what is no key and no call is nothing', async ({
  page,
}) => {
  test.setTimeout(90_000);
  const course = await makeCourse({ students: 1, apart: true });
  const { api, number, pins } = await withLine(course);
  await makeOffer(page);
  const last = (call: ReturnType<typeof rawCall>) =>
    expect.poll(() => call.said.at(-1) ?? '', { timeout: 15_000 });
  for (let n = 0; n < 2; n++) {
    const call = rawCall(number, '+1 902 555 0177');
    await last(call).toContain('Please key your PIN');
    for (const wrong of ['00000001', '00000002', '00000003']) {
      const before = call.said.length;
      call.keys(wrong);
      await expect.poll(() => call.said.length, { timeout: 10_000 }).toBeGreaterThan(before);
      await page.waitForTimeout(1000);
    }
    await last(call).toContain('too many wrong PINs');
    await call.ended;
  }
  const right = rawCall(number, '+1 902 555 0177');
  await last(right).toContain('Please key your PIN');
  right.keys(pins[0]!);
  await last(right).toContain('too many wrong PINs');
  right.up();
  // Another caller is not kept out by it, and waits for the teacher.
  const other = rawCall(number, '+1 902 555 0178');
  await last(other).toContain('Please key your PIN');
  other.keys(`x?#${pins[0]!}`);
  await last(other).toContain('Please hold the line');
  // A PIN that was replaced is nobody's any more, for one who holds the line with it as well.
  const replace = { edit: 'replace-links', members: [course.students[0]!.id] };
  expect((await api.post(`/api/courses/${course.id}/members`, { data: replace })).ok()).toBe(true);
  await last(other).toContain('no longer good');
  await other.ended;
  const old = rawCall(number, '+1 902 555 0179');
  await last(old).toContain('Please key your PIN');
  old.keys(pins[0]!);
  await last(old).toContain('not known on this line');
  old.up();
  const strange = rawCall('+1 000 000 0000', null);
  await last(strange).toContain('No class is reached by this number');
  await strange.ended;
  await api.dispose();
});

test('by telephone one may speak exactly where the list that was read says so', async ({ page }) => {
  test.setTimeout(120_000);
  const course = await makeCourse({ students: 1, apart: true });
  const { api, number, pins } = await withLine(course);
  await makeOffer(page);
  const put = async (what: string, data: object) =>
    expect((await api.put(`/api/courses/${course.id}/${what}`, { data })).ok(), what).toBe(true);
  await put('door', { teacherFirst: false, opensMinutesBefore: 240 });
  const teacher = live({ cookie: await cookie(api) });
  expect((await teacher.emitWithAck('enter', { session: course.session, after: 0 })).ok).toBe(true);
  const command = async (c: object) =>
    expect((await teacher.emitWithAck('command', { id: randomUUID(), command: c })).ok).toBe(true);
  const call = rawCall(number, null);
  await expect.poll(() => call.said.length, { timeout: 15_000 }).toBeGreaterThan(0);
  call.keys(pins[0]!);
  await expect.poll(() => call.said.join(' '), { timeout: 15_000 }).toContain('Your microphone is off.');
  const { id: member } = course.students[0]!;
  const exception = async (state: string) => {
    const made = await api.post(`/api/courses/${course.id}/exceptions`, {
      data: { member, capability: 'speak', state, until: null, reason: '' },
    });
    const { id } = await made.json();
    return () => api.post(`/api/courses/${course.id}/exceptions/${id}/end`, { data: {} });
  };
  const give = async (having: Having): Promise<() => unknown> => {
    if (having === 'nothing') return () => {};
    if (having !== 'the floor') return exception(having === 'one that closes' ? 'closed' : 'open');
    await command({ type: 'giveFloor', member });
    return () => command({ type: 'takeFloor' });
  };
  /** What the second key is answered with. */
  const second = async () => {
    const before = call.said.length;
    call.keys('2');
    const answers = () => call.said.slice(before).join(' ');
    await expect.poll(answers, { timeout: 10_000 }).toMatch(/microphone is (on|off)|Speaking|closed|hush/i);
    return answers();
  };
  const expected = verdictsRead();
  const wrong: string[] = [];
  for (const phase of PHASES) {
    if (phase === 'on') await command({ type: 'ringIn' });
    for (const state of rowOf('speak').states) {
      await put('limits', { limits: { speak: state } });
      for (const having of HAVING) {
        if (having === 'the floor' && phase === 'waiting') continue;
        const takeBack = await give(having);
        if (phase === 'hushed') await command({ type: 'hush' });
        // What was said of the change is said.
        await page.waitForTimeout(400);
        const words = await second();
        const may = words.includes('Your microphone is on.');
        if (may) await second();
        if (phase === 'hushed') await command({ type: 'lift' });
        await takeBack();
        const at = `speak: ${state}, ${phase}, having ${having}: student`;
        if (expected.get(at) !== may) wrong.push(`${at}: ${words}`);
      }
    }
  }
  expect(wrong).toEqual([]);
  call.up();
  await command({ type: 'dismiss' });
  teacher.disconnect();
  await api.dispose();
});
