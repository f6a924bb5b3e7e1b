import { expect, test } from '@playwright/test';
import type { MemberInfo } from '@nimble-bell/core/api';
import { snapshotFor, type RoomCommand } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { CAPABILITY_IDS } from '@nimble-bell/core/limits';
import { Chance } from './support/chance';
import { account, makeCourse, ringIn, type MadeCourse } from './support/course';
import { letterTo } from './support/letters';
import { MAREN } from './support/people';
import { PageWithout } from './support/pageWithout';
import { BASE_URL, pidOf } from './support/product';
import { replayed, storedEvents } from './support/store';

/** `KILLS=60 npx playwright test -c e2e --project=alone --no-deps kills` is the long way; every run of the tests does these. */
const KILLS = Number(process.env.KILLS ?? 24);
const SEED = Number(process.env.SEED ?? Date.now() % 1e6);

/** What somebody in a busy class does next. */
function doing(
  chance: Chance,
  me: string,
  students: readonly string[],
  teaching: boolean,
  n: number,
): RoomCommand {
  const say = (): RoomCommand => ({ type: 'say', addressee: { to: 'class' }, text: `${me} word ${n}` });
  const own: (() => RoomCommand)[] = [
    say,
    say,
    () => ({ type: 'raiseHand' }),
    () => ({ type: 'lowerHand', member: me }),
    () => ({ type: 'draw', stroke: { points: [chance.next(), chance.next()], colour: 'ink' } }),
    () => ({ type: 'say', addressee: { to: 'teachers' }, text: `${me} asks ${n}` }),
  ];
  const taught: (() => RoomCommand)[] = [
    say,
    () => ({
      type: 'setLimit',
      capability: chance.of(CAPABILITY_IDS),
      state: chance.of(['closed', 'byHand', 'open', 'open']),
    }),
    () => ({ type: 'giveFloor', member: chance.of(students) }),
    () => ({ type: 'takeFloor' }),
    () => ({ type: 'hush' }),
    () => ({ type: 'lift' }),
    () => ({ type: 'lift' }),
    () => ({ type: 'pauseRecording' }),
    () => ({ type: 'resumeRecording' }),
    () => ({ type: 'muteAll' }),
  ];
  return chance.of(teaching ? taught : own)();
}

/** Somebody who teaches the course by their link, as a colleague without an account does. */
async function colleague(course: MadeCourse, page: import('@playwright/test').Page): Promise<string> {
  const api = await account(MAREN);
  const email = `iden.${course.id}@saltmarsh.example`;
  const person = { name: 'Iden Garrow', email, role: 'teacher' };
  await api.post(`/api/courses/${course.id}/members`, { data: { edit: 'add', invite: true, person } });
  const { code } = await (await api.get(`/api/courses/${course.id}`)).json();
  const { text } = await letterTo(page, email, `${code} Made for a test: your way in`);
  return /\/in\/[a-z0-9-]+/.exec(text)![0];
}

test(`app, database and relay are killed ${KILLS} times in a busy class: nothing acknowledged is lost or doubled`, async ({
  page,
}) => {
  test.setTimeout(120_000 + KILLS * 6000);
  console.log(`seed ${SEED}`);
  const chance = new Chance(SEED);
  const course = await makeCourse({
    students: 18,
    apart: true,
    record: true,
    limits: { writeToClass: 'open', draw: 'open', speak: 'open' },
  });
  const link = await colleague(course, page);
  await ringIn(page, course, ['Microphone', 'Camera']);
  const pages = [link, ...course.students.map((s) => s.link)].map(
    (way) => new PageWithout(way, course.session, BASE_URL),
  );
  for (const p of pages) await p.untilIn();
  const ids = course.students.map((s) => s.id);

  const acknowledged: string[] = [];
  const outcomes: Promise<unknown>[] = [];
  let busy = true;
  const act = async (p: PageWithout, i: number) => {
    const own = new Chance(SEED + i);
    const me = i === 0 ? 'iden' : ids[i - 1]!;
    for (let n = 0; busy; n++) {
      const command = doing(own, me, ids, i === 0, n);
      outcomes.push(
        p.do(command).then((reply) => {
          if (reply.ok && command.type === 'say') acknowledged.push(command.text);
        }),
      );
      await new Promise((resolve) => setTimeout(resolve, own.between(150, 700)));
    }
  };
  const acting = pages.map(act);

  const killed: Record<string, number> = { app: 0, database: 0, relay: 0 };
  for (let k = 0; k < KILLS;) {
    await new Promise((resolve) => setTimeout(resolve, chance.between(100, 2200)));
    const part = chance.of(['app', 'app', 'database', 'relay']);
    try {
      process.kill(pidOf(part), 'SIGKILL');
      killed[part]!++;
      k++;
    } catch {
      // It is between two lives: another moment is chosen.
    }
  }
  busy = false;
  await Promise.all(acting);
  for (const p of pages) await p.untilIn(40_000);
  await Promise.all(outcomes);
  // One word more, so that every page has heard of everything before it.
  expect((await pages[0]!.do({ type: 'say', addressee: { to: 'class' }, text: 'the last word' })).ok).toBe(
    true,
  );
  const rows = await storedEvents(course.session);
  const room = replayed(rows);
  for (const p of pages) await expect.poll(() => p.view.state!.seq, { timeout: 10_000 }).toBe(room.seq);

  for (const p of pages) {
    const { state, info } = p.view;
    const expected = snapshotFor(room, info!.me);
    // Who is with us is for those who teach: a student's page makes its own of what it hears, and shows nothing of it.
    const { talk, notice: _n, withUs: own, ...rest } = state!;
    const { talk: said, notice: _m, withUs: known, ...others } = expected;
    expect(rest).toEqual(others);
    if (teaches(info!.me.role)) expect(own).toEqual(known);
    const common = Math.min(talk.messages.length, said.messages.length);
    expect(talk.messages.slice(-common)).toEqual(said.messages.slice(-common));
    expect(common).toBeGreaterThan(Math.min(150, said.messages.length) - 1);
  }
  const stored = rows.flatMap((r) => (r.event.type === 'said' ? [r.event.text] : []));
  expect(new Set(stored).size).toBe(stored.length);
  expect(acknowledged.filter((t) => !stored.includes(t))).toEqual([]);
  expect(rows.map((r) => r.event.seq)).toEqual(rows.map((_r, i) => i + 1));
  console.log(
    `${rows.length} events, ${acknowledged.length} words acknowledged, killed: ${JSON.stringify(killed)}`,
  );

  await page.waitForTimeout(1500);
  expect((await pages[0]!.do({ type: 'dismiss' })).ok).toBe(true);
  for (const p of pages) p.close();
  const api = await account(MAREN);
  const recording = async () =>
    (await (await api.get(`/api/sessions/${course.session}`)).json()).recordings[0];
  await expect.poll(async () => (await recording()).state, { timeout: 120_000 }).toBe('ready');
  const { parts, gaps } = await (await api.get(`/api/recordings/${(await recording()).id}`)).json();
  // Every time that the server was away is a gap that is said; nothing else is missing.
  const away = rows.filter((r) => r.event.type === 'interrupted').length;
  expect(parts.length).toBeGreaterThanOrEqual(Math.min(2, away));
  const sum = (spans: number[]) => spans.reduce((a, b) => a + b, 0);
  const whole = parts.at(-1).until - parts[0].from;
  const kept = sum(parts.map((p: { from: number; until: number }) => p.until - p.from));
  expect(kept + sum(gaps.map((g: { missing: number }) => g.missing))).toBe(whole);
  const members: MemberInfo[] = await (await api.get(`/api/courses/${course.id}/members`)).json();
  expect(members.filter((m) => m.role === 'student')).toHaveLength(18);
});
