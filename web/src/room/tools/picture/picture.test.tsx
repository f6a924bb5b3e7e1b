import { act, fireEvent, screen } from '@testing-library/react';
import { ana, CLASS, maren, roomTools, showInRoom } from '../../../testing/render';
import AllFaces from './AllFaces';
import { MainPicture } from './MainPicture';

jest.mock('../../live/Playback', () => ({
  Picture: ({ label }: { label: string }) => <video aria-label={label} />,
}));

const away = /Maren Oduya is away for a moment\. Stay here/;

test('students whose teacher’s page is gone are told to wait; those who teach, and a class without one, are not', () => {
  const { tools, happen } = roomTools(ana, CLASS);
  showInRoom(tools, <MainPicture />);
  expect(screen.getByText('No camera is on and nothing is presented.')).toBeTruthy();
  act(() => happen({ type: 'left', member: 'maren' }));
  expect(screen.getByText(away)).toBeTruthy();
});

test('one’s own picture is hidden from oneself, and stays so', () => {
  const { tools } = roomTools(maren, [...CLASS, { type: 'camera', member: 'maren', on: true }]);
  const track = {} as MediaStreamTrack;
  const own = [{ member: 'maren', kind: 'camera', track }];
  Object.assign(tools.call, { tracks: () => own });
  const shown = showInRoom(tools, <MainPicture />);
  expect(screen.getByLabelText('Maren Oduya, camera')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Hide me from myself' }));
  expect(screen.queryByLabelText('Maren Oduya, camera')).toBeNull();
  shown.unmount();
  showInRoom(tools, <MainPicture />);
  expect(screen.getByText(/The others see you/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Show me to myself' }));
  expect(screen.getByLabelText('Maren Oduya, camera')).toBeTruthy();
});

test('those who teach make somebody large for all by one press on their face; students do not', () => {
  const cameras = ['ana', 'ben'].map((member) => ({ type: 'camera' as const, member, on: true }));
  const { tools, sent, happen } = roomTools(maren, [...CLASS, ...cameras]);
  const shown = showInRoom(tools, <AllFaces />);
  fireEvent.click(screen.getByRole('button', { name: 'Ana Lanyon, large for all' }));
  act(() => happen({ type: 'featured', by: 'maren', member: 'ana', place: 'class' }));
  fireEvent.click(screen.getByRole('button', { name: 'Not large for all any more' }));
  expect(sent).toEqual([
    { type: 'feature', member: 'ana' },
    { type: 'feature', member: null },
  ]);
  shown.unmount();
  showInRoom(roomTools(ana, [...CLASS, ...cameras]).tools, <AllFaces />);
  expect(screen.queryByRole('button', { name: /large for all/ })).toBeNull();
});

test('what two present is side by side; a teacher lets a second one, and a student is not asked', async () => {
  const presents = (member: string) => ({ type: 'presenting' as const, member, on: true, place: 'class' });
  const screens = ['ana', 'maren'].map((member) => ({
    ...{ member, kind: 'screen', track: {} as MediaStreamTrack },
  }));
  const { tools, sent, happen } = roomTools(maren, [...CLASS, presents('ana')]);
  Object.assign(tools.call, { tracks: () => screens });
  const shown = showInRoom(tools, <MainPicture />);
  expect(await screen.findAllByLabelText(/, screen$/)).toHaveLength(1);
  fireEvent.click(screen.getByRole('button', { name: 'Let a second present beside it' }));
  expect(sent).toEqual([{ type: 'letTwoPresent', on: true }]);
  act(() => happen({ type: 'twoLetPresent', by: 'maren', on: true, place: 'class' }, presents('maren')));
  expect(screen.getAllByLabelText(/, screen$/).map((v) => v.getAttribute('aria-label'))).toEqual([
    'Ana Lanyon, screen',
    'Maren Oduya, screen',
  ]);
  fireEvent.click(screen.getByRole('button', { name: 'One at a time again' }));
  expect(sent.at(-1)).toEqual({ type: 'letTwoPresent', on: false });
  shown.unmount();
  const hers = roomTools(ana, [...CLASS, presents('maren')]).tools;
  Object.assign(hers.call, { tracks: () => screens });
  showInRoom(hers, <MainPicture />);
  expect(await screen.findByLabelText('Maren Oduya, screen')).toBeTruthy();
  expect(screen.queryByRole('button', { name: /second/ })).toBeNull();
});

test('faces stand beside what is presented, for whom wants them, and stay away where one put them away', async () => {
  const { tools } = roomTools(maren, [
    ...CLASS,
    { type: 'camera', member: 'ana', on: true },
    { type: 'presenting', member: 'maren', on: true, place: 'class' },
  ]);
  const track = {} as MediaStreamTrack;
  const all = [
    { member: 'maren', kind: 'screen', track },
    { member: 'ana', kind: 'camera', track },
  ];
  Object.assign(tools.call, { tracks: () => all });
  const shown = showInRoom(tools, <MainPicture />);
  expect(await screen.findByLabelText('Ana Lanyon, camera')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Without the faces' }));
  expect(screen.queryByLabelText('Ana Lanyon, camera')).toBeNull();
  shown.unmount();
  showInRoom(tools, <MainPicture />);
  fireEvent.click(await screen.findByRole('button', { name: 'Faces beside it' }));
  expect(screen.getByLabelText('Ana Lanyon, camera')).toBeTruthy();
});
