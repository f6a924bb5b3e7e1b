import { act, fireEvent, screen } from '@testing-library/react';
import { CLASS, maren, roomTools, showInRoom } from '../../testing/render';
import { ownDevices } from '../live/ownDevices';
import { sharpened } from '../live/devices';
import { paperLamp } from '../live/paper';
import PresentTurn from '../floor/PresentTurn';
import PresentChoice from './PresentChoice';

const show = (events = CLASS) => {
  const { tools } = roomTools(maren, events);
  const as: string[] = [];
  Object.assign(tools.call, { presentAs: (presents: string) => as.push(presents) });
  showInRoom(tools, <PresentChoice />);
  return as;
};

test('what one presents is chosen, kept on this device, and what is presented goes on accordingly', () => {
  const as = show();
  fireEvent.click(screen.getByRole('radio', { name: /^What moves/ }));
  expect(screen.getByText(/A film with its sound: Film/)).toBeTruthy();
  fireEvent.click(screen.getByRole('radio', { name: /^Text and pages/ }));
  fireEvent.click(screen.getByRole('radio', { name: /^Paper under a camera/ }));
  // A camera takes the place of a screen with the next time of presenting.
  expect(as).toEqual(['moving', 'sharp']);
  expect(JSON.parse(localStorage.getItem('nb-devices')!)).toMatchObject({ presents: 'paper' });
});

test('paper is turned by quarters, and come closer to within bounds; where it is cut is asked for then alone', () => {
  show([...CLASS, { type: 'presenting', member: 'maren', on: true, place: 'class' }]);
  expect(screen.getByText(/stays it until you present again/)).toBeTruthy();
  expect(screen.queryByRole('slider')).toBeNull();
  for (let i = 0; i < 5; i++) fireEvent.click(screen.getByRole('button', { name: 'Turn it' }));
  expect(ownDevices.get().paper.turn).toBe(1);
  const closer = screen.getByRole('button', { name: 'Closer' }) as HTMLButtonElement;
  for (let i = 0; i < 20; i++) fireEvent.click(closer);
  expect([ownDevices.get().paper.closer, closer.disabled]).toEqual([4, true]);
  fireEvent.keyDown(screen.getByRole('slider', { name: 'How far down' }), { key: 'ArrowRight' });
  expect(ownDevices.get().paper).toMatchObject({ x: 0.5, y: 0.55 });
  const off = screen.getByRole('button', { name: 'Further off' });
  for (let i = 0; i < 20; i++) fireEvent.click(off);
  expect(ownDevices.get().paper.closer).toBe(1);
});

test('paper is made brighter or darker within bounds; a lamp is offered where the camera has one', () => {
  show();
  const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
  const { paper } = ownDevices.get();
  expect(screen.queryByRole('button', { name: /lamp/ })).toBeNull();
  for (let i = 0; i < 9; i++) press('Brighter');
  expect(ownDevices.get().paper.brighter).toBe(4);
  for (let i = 0; i < 12; i++) press('Darker');
  expect(ownDevices.get().paper).toEqual({ ...paper, brighter: -4 });
  act(() => paperLamp.set(true));
  press('The camera’s lamp');
  expect(ownDevices.get().paper.lamp).toBe(true);
});

test('a track says whether it is text or moves, and is asked for as many frames; a camera has its own', async () => {
  const asked: object[] = [];
  const track = () =>
    ({
      contentHint: '',
      applyConstraints: async (c: object) => void asked.push(c),
    }) as unknown as MediaStreamTrack;
  expect(sharpened(track(), 'sharp').contentHint).toBe('text');
  expect(sharpened(track(), 'moving').contentHint).toBe('motion');
  expect(sharpened(track(), 'paper').contentHint).toBe('text');
  expect(asked).toEqual([{ frameRate: 12 }, { frameRate: 30 }]);
});

test('who is asked to present reads it, and begins or leaves it', () => {
  const open = { type: 'limitSet', by: 'maren', capability: 'present', state: 'open' } as const;
  const asked = [...CLASS, open, { type: 'presentAsked', by: 'maren', member: 'ana' } as const];
  const { tools } = roomTools({ member: 'ana', role: 'student' }, asked);
  const done: unknown[] = [];
  Object.assign(tools, {
    sendWithDevice: async (kind: string, command: object) => void done.push([kind, command]),
  });
  const { unmount } = showInRoom(tools, <PresentTurn />);
  expect(screen.getByText('Maren Oduya asks you to present.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Present' }));
  expect(done).toEqual([['screen', { type: 'present', on: true }]]);
  fireEvent.click(screen.getByRole('button', { name: 'Not now' }));
  expect(screen.queryByRole('button')).toBeNull();
  unmount();
  // Nobody else, and nobody any more to whom it was closed meanwhile.
  const shut = { type: 'limitSet', by: 'maren', capability: 'present', state: 'closed' } as const;
  for (const [who, events] of [
    ['ben', asked],
    ['ana', [...asked, shut]],
  ] as const) {
    const shown = showInRoom(roomTools({ member: who, role: 'student' }, [...events]).tools, <PresentTurn />);
    expect(screen.queryByRole('button')).toBeNull();
    shown.unmount();
  }
});
