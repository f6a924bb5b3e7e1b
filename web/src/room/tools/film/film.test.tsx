import { fireEvent, screen, waitFor } from '@testing-library/react';
import { act } from 'react';
import type { MaterialInfo } from '@nimble-bell/core/api';
import type { RoomEvent } from '@nimble-bell/core/room';
import { setServerTime } from '../../../app/clock';
import { answerRequests } from '../../../testing/answers';
import { STILL } from '../../../testing/recording';
import { ana, CLASS, maren, roomTools, showInRoom } from '../../../testing/render';
import { AtHand } from '../AtHand';
import { HeldUp } from '../HeldUp';
import { Film } from './Film';
import { FilmReplay } from './FilmReplay';

const file = (id: string, name: string, type: string, sessionId: string | null = null): MaterialInfo => ({
  ...{
    id,
    name,
    type,
    sessionId,
    kind: 'file',
    url: `/api/materials/${id}/file`,
    bytes: 9,
    by: 'Maren',
    at: 0,
  },
});
const shown: RoomEvent = { type: 'filmShown', by: 'maren', material: 'm1', name: 'Spring tide.webm' };
const played = (playing: boolean, position: number): RoomEvent => ({
  ...{ type: 'filmPlayed', by: 'maren', playing, position },
});

test('a film of the session or the course is watched by two presses; no other file is offered', async () => {
  const { tools, sent } = roomTools(maren, CLASS);
  const { course } = tools.connection.view.info!;
  answerRequests({
    [`GET /api/courses/${course.id}/materials`]: [
      file('m1', 'Spring tide.webm', 'video/webm'),
      file('m2', 'Tides.pdf', 'application/pdf'),
      file('m3', 'Of another session.mp4', 'video/mp4', 'another'),
    ],
  });
  showInRoom(tools, <AtHand />);
  fireEvent.click(screen.getByRole('button', { name: /^Film/ }));
  fireEvent.click(await screen.findByRole('button', { name: 'Watch Spring tide.webm' }));
  expect(screen.queryByText('Tides.pdf')).toBeNull();
  expect(screen.queryByText('Of another session.mp4')).toBeNull();
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Watch Spring tide.webm' })).toBeNull());
  expect(sent).toEqual([{ type: 'showFilm', material: 'm1', name: 'Spring tide.webm' }]);
});

test('an address is given to the class once it is one, under its host where it has no name', async () => {
  const { tools, sent } = roomTools(maren, CLASS);
  answerRequests({ [`GET /api/courses/${tools.connection.view.info!.course.id}/materials`]: [] });
  showInRoom(tools, <AtHand />);
  fireEvent.click(screen.getByRole('button', { name: /^Film/ }));
  const address = await screen.findByRole('textbox', { name: 'Address' });
  const give = screen.getByRole('button', { name: 'Give it to the class' });
  fireEvent.change(address, { target: { value: 'javascript:alert(1)' } });
  expect(screen.getByText('This is no address of the web.')).not.toBeNull();
  expect(give).toHaveProperty('disabled', true);
  fireEvent.change(address, { target: { value: 'tides.example/today' } });
  fireEvent.click(give);
  await waitFor(() => expect(screen.queryByRole('textbox', { name: 'Address' })).toBeNull());
  expect(sent).toEqual([{ type: 'openCard', url: 'https://tides.example/today', title: 'tides.example' }]);
});

test('a card is pressed by each, apart, and put away by whoever teaches alone', async () => {
  const card: RoomEvent = {
    type: 'cardOpened',
    by: 'maren',
    url: 'https://tides.example/today',
    title: 'Today',
  };
  const { tools } = roomTools(ana, [...CLASS, card]);
  showInRoom(tools, <HeldUp />);
  const link = await screen.findByRole('link', { name: 'Today' });
  expect(link.getAttribute('href')).toBe('https://tides.example/today');
  expect(link.getAttribute('rel')).toContain('noopener');
  expect(screen.queryByRole('button', { name: 'Put it away' })).toBeNull();
});

test('whoever teaches plays, holds and goes back; students read that it is held', async () => {
  setServerTime(60_000);
  const { tools, sent, happen } = roomTools(maren, [...CLASS, shown]);
  answerRequests({
    [`GET /api/sessions/${tools.connection.view.info!.session.id}/film?of=m1`]: { path: '/film' },
  });
  showInRoom(tools, <Film />);
  fireEvent.click(await screen.findByRole('button', { name: 'Play it' }));
  expect(sent).toEqual([{ type: 'playFilm', playing: true, position: 0 }]);
  act(() => happen(played(false, 30_000)));
  fireEvent.click(screen.getByRole('button', { name: '10 s back' }));
  expect(sent.at(-1)).toEqual({ type: 'playFilm', playing: false, position: 20_000 });
  const student = roomTools(ana, [...CLASS, shown, played(false, 30_000)]);
  showInRoom(student.tools, <Film />);
  expect(await screen.findByText('It is held for a moment.')).not.toBeNull();
});

test('beside a recording the film stands where the class was in it; one that is gone is said to be', async () => {
  const { tools, room } = roomTools(maren, [
    ...CLASS,
    shown,
    played(false, 42_000),
    { type: 'cardOpened', by: 'maren', url: 'https://tides.example/', title: 'Today’s tides' },
  ]);
  const films = { path: '/api/recordings/r1/films', query: '?ticket=t' };
  const of = { room: room.state, at: 0, zone: 'UTC', session: 's', nameOf: () => '', films, clock: STILL };
  const { container } = showInRoom(tools, <FilmReplay {...of} pages={{ path: '', query: '' }} />);
  await screen.findByRole('region', { name: 'Watched in class' });
  const video = container.querySelector('video')!;
  expect(video.getAttribute('src')).toBe('/api/recordings/r1/films/m1?ticket=t');
  Object.defineProperty(video, 'readyState', { value: 4 });
  await waitFor(() => expect(video.currentTime).toBe(42));
  expect(screen.getByRole('link', { name: 'Today’s tides' }).getAttribute('target')).toBe('_blank');
  fireEvent.error(video);
  expect(screen.getByText(/not among the files of the course any more/)).toBeTruthy();
});
