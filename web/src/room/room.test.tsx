import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { act, Profiler } from 'react';
import type { Capability } from '@nimble-bell/core/api';
import { CLASS as IN_CLASS, type RoomEvent } from '@nimble-bell/core/room';
import { entry } from '@nimble-bell/core/testing';
import { setServerTime } from '../app/clock';
import { ana, CLASS, maren, roomInfo, roomTools, show, showInRoom } from '../testing/render';
import { Desk } from './desk/Desk';
import { FloorPanel } from './floor/FloorPanel';
import { Statements } from './floor/Statements';
import { Alone } from './frame/Alone';
import { Notice } from './frame/Notice';
import { RunSheetBar } from './runSheet/RunSheetBar';
import { Seats } from './seats/Seats';
import { Messages } from './tools/talk/Messages';
import { TalkPanel } from './tools/talk/TalkPanel';

const closed = (capability: Capability): RoomEvent => ({
  type: 'limitSet',
  by: 'maren',
  capability,
  state: 'closed',
});

test("a student's control that is closed says why and sends nothing", async () => {
  const { tools, sent } = roomTools(ana, [...CLASS, closed('speak')]);
  showInRoom(tools, <Desk />);
  fireEvent.click(screen.getByRole('button', { name: 'Microphone: closed' }));
  await waitFor(() =>
    expect(screen.getByTestId('why-closed').textContent).toContain(
      'Speaking is closed just now by Maren Oduya.',
    ),
  );
  expect(sent).toEqual([]);
});

test('an open control opens its device and asks the room', async () => {
  const { tools, sent } = roomTools(ana, CLASS);
  showInRoom(tools, <Desk />);
  fireEvent.click(screen.getByRole('button', { name: 'Camera: off' }));
  fireEvent.click(screen.getByRole('button', { name: 'Raise hand' }));
  await waitFor(() => expect(sent).toEqual([{ type: 'camera', on: true }, { type: 'raiseHand' }]));
});

test('students read plain statements, each closed one with its reason', () => {
  const { tools } = roomTools(ana, [
    ...CLASS,
    closed('writeToClass'),
    { type: 'floorGiven', by: 'maren', member: 'ana' },
  ]);
  showInRoom(tools, <Statements />);
  expect(screen.getByText('You have the floor.')).toBeTruthy();
  const items = screen.getAllByRole('listitem').map((li) => li.textContent);
  expect(items[0]).toContain('Speak: open');
  expect(items.find((t) => t?.startsWith('Write to the class'))).toContain('closed just now by Maren Oduya');
  // Nothing can be changed here; each says why it is so.
  expect(screen.getAllByRole('button').every((b) => /^Why: /.test(b.getAttribute('aria-label')!))).toBe(true);
});

test('every value says why with one press: its layers, the one in force marked, by whom', async () => {
  const { tools } = roomTools(ana, [...CLASS, closed('writeToClass'), { type: 'hushed', by: 'maren' }]);
  showInRoom(tools, <Statements />);
  fireEvent.click(screen.getByRole('button', { name: 'Why: Write to the class' }));
  const dialog = await screen.findByRole('dialog', { name: 'Why: Write to the class' });
  const rungs = [...dialog.querySelectorAll('li')].map((li) => li.textContent);
  expect(rungs[0]).toMatch(/^Hush: closed in forceMaren Oduya/);
  expect(rungs[1]).toMatch(/^Set in class: closedMaren Oduya/);
  expect(rungs.at(-1)).toBe('The college: open');
});

test('the floor changes a limit with one press and shows which is in force', () => {
  const { tools, sent } = roomTools(maren, [...CLASS, closed('writeToClass')]);
  showInRoom(tools, <FloorPanel />);
  expect(screen.getByRole('radio', { name: 'Write to the class: Closed' }).getAttribute('aria-checked')).toBe(
    'true',
  );
  fireEvent.click(screen.getByRole('radio', { name: 'Write to the class: Open' }));
  fireEvent.click(screen.getByRole('button', { name: /^Hush/ }));
  fireEvent.click(screen.getByRole('button', { name: /^Mute everyone/ }));
  expect(sent).toEqual([
    { type: 'setLimit', capability: 'writeToClass', state: 'open' },
    { type: 'hush' },
    { type: 'muteAll' },
  ]);
});

test('hushed, the floor offers to lift and no other change', () => {
  const { tools, sent } = roomTools(maren, [...CLASS, { type: 'hushed', by: 'maren' }]);
  showInRoom(tools, <FloorPanel />);
  fireEvent.click(screen.getByRole('radio', { name: 'Speak: Open' }));
  fireEvent.click(screen.getByRole('button', { name: /Lift the hush/ }));
  expect(sent).toEqual([{ type: 'lift' }]);
});

test('hands stand in the order of raising, and the floor is given and taken back there', () => {
  const hands: RoomEvent[] = [
    { type: 'handRaised', member: 'ben' },
    { type: 'handRaised', member: 'ana' },
  ];
  const { tools, sent } = roomTools(maren, [...CLASS, ...hands]);
  showInRoom(tools, <FloorPanel />);
  expect(screen.getByText('Hands (2)')).toBeTruthy();
  const [first] = screen.getAllByRole('button', { name: 'Give the floor' });
  fireEvent.click(first!);
  fireEvent.click(screen.getByRole('button', { name: 'Lower all 2' }));
  expect(sent).toEqual([{ type: 'giveFloor', member: 'ben' }, { type: 'lowerAll' }]);
});

test('seats show who is here first, the absent as outlines, and a menu for those who teach', async () => {
  const { tools, sent } = roomTools(maren, [
    ...CLASS.slice(0, 3),
    { type: 'limitSet', by: 'maren', capability: 'speak', state: 'open' },
    { type: 'microphone', member: 'ana', on: true },
    { type: 'handRaised', member: 'ana' },
  ]);
  showInRoom(tools, <Seats />);
  const seats = screen.getAllByTestId('seat');
  expect(seats.map((s) => [s.dataset.name, s.dataset.here])).toEqual([
    ['Maren Oduya', 'true'],
    ['Ana Lanyon', 'true'],
    ['Ben Garrow', 'false'],
  ]);
  expect(screen.getByRole('region', { name: 'Seats: 2 of 3 are here' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /^Ana Lanyon, here, microphone on, hand up/ }));
  fireEvent.click(await screen.findByRole('menuitem', { name: 'Mute' }));
  expect(sent).toEqual([{ type: 'mute', member: 'ana' }]);
});

test('a seat says since when its person speaks, and after a minute for how long; nothing of whoever is not passed on', () => {
  setServerTime(0);
  const { tools, voice, happen } = roomTools(ana, [
    ...CLASS,
    { type: 'limitSet', by: 'maren', capability: 'speak', state: 'open' },
    { type: 'microphone', member: 'ben', on: true },
  ]);
  showInRoom(tools, <Seats />);
  const seat = () => screen.getByRole('img', { name: /^Ben Garrow/ });
  act(() => voice({ member: 'ben', since: -125_000 }));
  expect(seat().getAttribute('aria-label')).toMatch(/microphone on, speaking since \d\d:57/);
  expect(within(seat()).getByText('2 min')).toBeTruthy();
  act(() => happen({ type: 'hushed', by: 'maren' }));
  expect(seat().dataset.speaking).toBe('false');
  act(() => happen({ type: 'lifted', by: 'maren' }));
  expect(seat().dataset.speaking).toBe('true');
  act(() => voice({ member: 'ben', since: null }));
  expect(seat().dataset.speaking).toBe('false');
});

test('a student has no menu on any seat', () => {
  const { tools } = roomTools(ana, CLASS);
  showInRoom(tools, <Seats />);
  expect(screen.queryAllByRole('button')).toEqual([]);
});

test('writing goes where it is addressed, and a closed way says why in its place', async () => {
  const { tools, sent } = roomTools(ana, CLASS);
  const { unmount } = showInRoom(tools, <TalkPanel />);
  fireEvent.change(screen.getByLabelText('Write'), { target: { value: '  Is it springs?  ' } });
  fireEvent.keyDown(screen.getByLabelText('Write'), { key: 'Enter' });
  await waitFor(() =>
    expect(sent).toEqual([{ type: 'say', addressee: { to: 'class' }, text: 'Is it springs?' }]),
  );
  fireEvent.change(screen.getByLabelText('Write'), { target: { value: '   ' } });
  fireEvent.keyDown(screen.getByLabelText('Write'), { key: 'Enter' });
  expect(sent).toHaveLength(1);
  unmount();
  showInRoom(roomTools(ana, [...CLASS, closed('writeToClass')]).tools, <TalkPanel />);
  expect(screen.queryByLabelText('Write')).toBeNull();
  expect(screen.getByTestId('talk-closed').textContent).toContain('Writing to the class is closed just now');
});

test('a message names its writer, whom it is for, and is shown as written', () => {
  const said = (
    from: string,
    addressee: { to: 'teachers' } | { to: 'member'; member: string },
    text: string,
  ) => ({ type: 'said', from, addressee, text, place: IN_CLASS }) satisfies RoomEvent;
  const { room } = roomTools(ana, [
    ...CLASS,
    said('ana', { to: 'teachers' }, 'May I leave early?'),
    said('maren', { to: 'member', member: 'ana' }, '<b>Yes</b>, you may.'),
  ]);
  show(<Messages messages={room.state.talk.messages} me="ana" zone="America/Halifax" nameOf={(m) => m} />);
  expect(screen.getByText('to the teachers')).toBeTruthy();
  expect(screen.getByText('to you')).toBeTruthy();
  expect(screen.getByText('<b>Yes</b>, you may.')).toBeTruthy();
});

test('the notice tells the last change in one line', () => {
  const { tools } = roomTools(ana, [...CLASS, closed('camera')]);
  showInRoom(tools, <Notice />);
  expect(screen.getByRole('status').textContent).toBe('Cameras are now closed.');
});

test('one name everywhere: what somebody is called in the room stands on their seat and in what they wrote', () => {
  const { tools, happen } = roomTools(maren, CLASS);
  showInRoom(tools, <Seats />);
  act(() => happen({ type: 'known', member: 'ana', name: 'Annie', role: 'student' }));
  expect(screen.getAllByTestId('seat').map((s) => s.dataset.name)).toContain('Annie');
});

test("what changes for one person draws that person's seat and no other", () => {
  const people = Array.from({ length: 300 }, (_, i) => ({
    member: `m${i}`,
    name: `Reader ${i}`,
    role: 'student' as const,
    group: null,
  }));
  const { tools, happen } = roomTools(maren, [...CLASS, ...people.map((p) => entry(p.member, p.name))], {
    people,
  });
  let drawn = 0;
  showInRoom(
    tools,
    <Profiler id="seats" onRender={() => drawn++}>
      <Seats />
    </Profiler>,
  );
  const seats = () => screen.getAllByTestId('seat');
  const before = seats().map((s) => s.outerHTML);
  drawn = 0;
  act(() => happen({ type: 'handRaised', member: 'm7' }));
  expect(drawn).toBe(1);
  const changed = seats().filter((s, i) => s.outerHTML !== before[i]);
  expect(changed.map((s) => s.dataset.name)).toEqual(['Reader 7']);
  act(() => happen({ type: 'said', from: 'm9', addressee: { to: 'class' }, text: 'Hello', place: IN_CLASS }));
  expect(drawn).toBe(1);
});

test('an always-open room counts no minutes and says since when it is open', () => {
  const { session } = roomInfo(maren);
  const standing = { session: { ...session, kind: 'open' as const, startsAt: 0, endsAt: 9e12 } };
  const { tools } = roomTools(maren, [entry('ana'), { type: 'rangIn', by: null }], standing);
  showInRoom(tools, <RunSheetBar />);
  expect(screen.getByText(/open since/)).toBeTruthy();
  expect(screen.queryByText(/min left/)).toBeNull();
  expect(screen.queryByRole('img', { name: /Run sheet/ })).toBeNull();
  expect(screen.queryByRole('button', { name: 'Ring in' })).toBeNull();
});

test('a class that its teachers have left says when it closes, and stops when one is back', () => {
  const left: RoomEvent[] = [...CLASS, { type: 'left', member: 'maren' }];
  const { tools } = roomTools(ana, left);
  setServerTime(30_000);
  showInRoom(tools, <Alone />);
  expect(screen.getByRole('status').textContent).toContain('unless one comes back');
  expect(screen.getByText(/^\d:\d\d$/)).toBeTruthy();
  document.body.innerHTML = '';
  showInRoom(roomTools(ana, CLASS).tools, <Alone />);
  expect(screen.queryByRole('status')).toBeNull();
});
