import { randomUUID } from 'node:crypto';
import { expect, test, type APIRequestContext } from '@playwright/test';
import { rowOf, CAPABILITY_IDS, type Capability } from '@nimble-bell/core/limits';
import type { RoomCommand } from '@nimble-bell/core/room';
import type { Socket } from 'socket.io-client';
import { account, byLink, makeCourse } from './support/course';
import { edit, members } from './support/list';
import { cookie, live } from './support/live';
import { MAREN, TEO } from './support/people';
import { HAVING, PHASES, verdictsRead, type Having } from './support/verdicts';

interface Asker {
  role: string;
  member: string;
  name: string;
  socket: Socket;
  api: APIRequestContext;
}

/** At the relay alone: `enforcement` asks it. */
const ASKED = CAPABILITY_IDS.filter((c) => c !== 'seeCameras');

/** A change of the notes that changes nothing. */
const NO_CHANGE = Buffer.from([0, 0]).toString('base64');

/** A command that needs the capability, and what takes it back. */
function tries(capability: Capability, { member, name }: Asker, other: string): [RoomCommand, RoomCommand?] {
  const say = (addressee: object) => ({ type: 'say', addressee, text: 'A word.' }) as RoomCommand;
  switch (capability) {
    case 'speak':
      return [
        { type: 'microphone', on: true },
        { type: 'microphone', on: false },
      ];
    case 'camera':
      return [
        { type: 'camera', on: true },
        { type: 'camera', on: false },
      ];
    case 'present':
      return [
        { type: 'present', on: true },
        { type: 'present', on: false },
      ];
    case 'draw':
      return [{ type: 'draw', stroke: { points: [0.5, 0.5], colour: 'ink' } } as RoomCommand];
    case 'writeToClass':
      return [say({ to: 'class' })];
    case 'writeToTeachers':
      return [say({ to: 'teachers' })];
    case 'writeToStudents':
      return [say({ to: 'member', member: other })];
    case 'rename':
      return [{ type: 'rename', member, name }];
    case 'react':
      return [
        { type: 'giveSign', sign: 'agree' },
        { type: 'giveSign', sign: null },
      ];
    default:
      throw new Error(`Nothing is tried that needs ${capability}.`);
  }
}

/** Whether somebody sees it of another, by what they are given of the room. */
async function given(capability: Capability, { socket }: Asker, session: string, other: string) {
  const { room, events } = await answer(socket, 'enter', { session, after: 0 });
  expect(events).toEqual([]);
  if (capability === 'seeNames') return !/^Student \d+$/.test(room.presence.people[other].name);
  return room.floor.hands.some((h: { member: string }) => h.member === other);
}

/** Asked again where one has asked too much at once. */
async function answer(socket: Socket, name: string, body: object) {
  for (;;) {
    const reply = await socket.timeout(10_000).emitWithAck(name, body);
    if (reply.refusal?.code !== 'too-many') return reply;
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
}

const ask = (socket: Socket, command: RoomCommand): Promise<{ ok: boolean }> =>
  answer(socket, 'command', { id: randomUUID(), command });

test('the running server decides every capability in every state, phase and role as the list that was read says', async () => {
  test.setTimeout(240_000);
  const course = await makeCourse({ students: 2, apart: true });
  const api = await account(MAREN);
  const put = async (what: string, data: object) =>
    expect((await api.put(`/api/courses/${course.id}/${what}`, { data })).ok(), what).toBe(true);
  await put('door', { teacherFirst: false, opensMinutesBefore: 240 });
  for (const role of ['guest', 'observer'])
    await edit(api, course, {
      edit: 'add',
      invite: false,
      person: { name: `A ${role}`, email: `${role}.${course.id}@example.org`, role },
    });
  const teo = await account(TEO);
  const person = { name: 'Teo Vanterpool', email: TEO, role: 'assistant' };
  await edit(api, course, { edit: 'add', invite: false, person });
  const list = await members(api, course);
  const [student, other] = course.students;
  const asker = async (role: string): Promise<Asker> => {
    const { id, name, link } = list.find((m) =>
      role === 'student' ? m.id === student!.id : m.role === role,
    )!;
    const socket =
      role === 'teacher' ? live({ cookie: await cookie(api) }) : live({ link: link!.replace('/in/', '') });
    const entered = await socket.emitWithAck('enter', { session: course.session, after: 0 });
    expect(entered.ok, role).toBe(true);
    return { role, member: id, name, socket, api: role === 'teacher' ? api : await byLink(link!) };
  };
  const teacher = await asker('teacher');
  const askers = [teacher, ...(await Promise.all(['student', 'guest', 'observer'].map(asker)))];
  const second = live({ link: other!.link.replace('/in/', '') });
  expect((await second.emitWithAck('enter', { session: course.session, after: 0 })).ok).toBe(true);
  // What marks there are to be seen.
  await ask(second, { type: 'raiseHand' });
  // Two who teach give the commands in turn: one alone may not give as many in the time.
  const helps = live({ cookie: await cookie(teo) });
  expect((await helps.emitWithAck('enter', { session: course.session, after: 0 })).ok).toBe(true);
  let turn = 0;
  const command = async (c: RoomCommand) =>
    expect(await ask(turn++ % 2 ? helps : teacher.socket, c)).toMatchObject({ ok: true });

  /** Gives somebody what the case says they have; resolves to what takes it back. */
  const give = async (having: Having, { member }: Asker, capability: Capability) => {
    if (having === 'the floor') {
      await command({ type: 'giveFloor', member });
      return () => command({ type: 'takeFloor' });
    }
    if (having === 'nothing') return async () => {};
    const state = having === 'one that closes' ? 'closed' : 'open';
    const made = await api.post(`/api/courses/${course.id}/exceptions`, {
      data: { member, capability, state, until: null, reason: '' },
    });
    const { id } = await made.json();
    return async () => void (await api.post(`/api/courses/${course.id}/exceptions/${id}/end`, { data: {} }));
  };

  const verdict = async (capability: Capability, one: Asker): Promise<boolean> => {
    if (rowOf(capability).group === 'seeing') return given(capability, one, course.session, other!.id);
    if (capability === 'attachFiles') {
      const sent = await one.api.post(`/api/sessions/${course.session}/attached?name=a.txt`, {
        data: Buffer.from('A file.'),
        headers: { 'content-type': 'application/octet-stream' },
      });
      expect([201, 403]).toContain(sent.status());
      return sent.ok();
    }
    if (capability === 'writeNotes') {
      const change = { place: 'class', name: 'notes', update: NO_CHANGE };
      return (await one.socket.timeout(10_000).emitWithAck('documentUpdate', change)).ok;
    }
    const [act, undo] = tries(capability, one, other!.id);
    const { ok } = await ask(one.socket, act);
    if (ok && undo) await ask(one.socket, undo);
    return ok;
  };

  const expected = verdictsRead();
  const lent = ({ role }: Asker) => ['student', 'guest'].includes(role);
  const wrong: string[] = [];
  let asked = 0;
  for (const phase of PHASES) {
    if (phase === 'on') await command({ type: 'ringIn' });
    for (const capability of ASKED)
      for (const state of rowOf(capability).states) {
        await put('limits', { limits: { [capability]: state } });
        for (const having of HAVING) {
          if (having === 'the floor' && phase === 'waiting') continue;
          // Who teaches and who only watches is given nothing but by their role.
          const tried = having === 'nothing' ? [askers] : askers.filter(lent).map((one) => [one]);
          for (const ones of tried) {
            const takeBack = await give(having, ones[0]!, capability);
            if (phase === 'hushed') await command({ type: 'hush' });
            const said: boolean[] = [];
            for (const one of ones) said.push(await verdict(capability, one));
            if (phase === 'hushed') await command({ type: 'lift' });
            await takeBack();
            for (const [i, { role }] of ones.entries()) {
              const at = `${capability}: ${state}, ${phase}, having ${having}: ${role}`;
              asked++;
              if (expected.get(at) !== said[i]) wrong.push(`${at}: ${said[i] ? 'may' : 'may not'}`);
            }
          }
        }
      }
  }
  expect(wrong).toEqual([]);
  expect(asked).toBeGreaterThan(700);
  await command({ type: 'dismiss' });
  for (const { socket } of askers)
    expect(await ask(socket, { type: 'raiseHand' })).toMatchObject({ ok: false });
  for (const socket of [...askers.map((a) => a.socket), second, helps]) socket.disconnect();
  await Promise.all([api.dispose(), teo.dispose()]);
});
