import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { NoteInfo, RecordingDetail } from '@nimble-bell/core/api';
import { answerRequests, asked } from '../testing/answers';
import { playable, recording, seek } from '../testing/recording';
import { show } from '../testing/render';
import { WatchPage } from './WatchPage';

const NOTES: NoteInfo[] = [
  { id: 'n', kind: 'note', position: 12_000, text: 'Read again', answer: null, by: null },
  { id: 'q', kind: 'question', position: 42_000, text: 'Why 210?', answer: 'By the rose.', by: 'Ana Lanyon' },
];

function watch(detail: RecordingDetail) {
  answerRequests({ '/api/recordings/undefined': detail, '/api/recordings/r/notes': NOTES });
  playable();
  show(<WatchPage />);
}

test('what was written and drawn appears as the recording comes to it, and goes again on going back', async () => {
  watch(recording());
  await waitFor(() => expect(screen.getByRole('heading', { name: 'Lecture 3' })).toBeTruthy());
  expect(screen.getByText('Tue 6 Oct, 21:30, 1:00')).toBeTruthy();
  const talk = () => screen.getByTestId('replayed-talk').textContent ?? '';
  await screen.findByTestId('replayed-talk');
  expect(talk()).toContain('appears as the recording comes to it');
  seek(12);
  expect(talk()).toContain('Early word.');
  expect(screen.queryByRole('img', { name: /^Board/ })).toBeNull();
  seek(31);
  expect(screen.getByRole('img', { name: 'Board with 1 stroke' })).toBeTruthy();
  expect(talk()).not.toContain('Late word.');
  seek(51);
  expect(talk()).toContain('Late word.');
  seek(0);
  expect(talk()).not.toContain('Early word.');
});

test('what is missing is said, and chapters lead to their place', async () => {
  watch(recording());
  await waitFor(() => expect(screen.getByText(/the recording was paused for 1:00/)).toBeTruthy());
  expect(screen.getByText(/3 seconds are missing, because the server was away/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /After the pause/ }));
  expect(document.querySelector('audio')!.currentTime).toBe(40);
});

test('what is taken along is offered only where that is on: made when it is asked for, then saved', async () => {
  watch(recording());
  await waitFor(() => expect(screen.getByText('Downloads of this recording are off.')).toBeTruthy());
  document.body.innerHTML = '';
  const detail = recording({ mayDownload: true });
  const made = { id: 'e', bytes: 2_500_000, progress: 1, path: '/made', goneAt: detail.startsAt };
  const exports = [
    { ...made, kind: 'film.mp4', state: 'ready' },
    { ...made, kind: 'sound.mp3', state: 'making', progress: 0.4, path: null, goneAt: null },
    { ...made, kind: 'film.webm', state: 'failed', path: null, goneAt: null },
  ];
  answerRequests({ '/api/recordings/undefined': detail, '/api/recordings/r/exports': exports });
  show(<WatchPage />);
  const save = await screen.findByRole('link', { name: 'Save: A film (MP4)' });
  expect([save.getAttribute('href'), save.textContent]).toEqual(['/made', 'Save, 2.5 MB']);
  expect(screen.getByText('40 %')).toBeTruthy();
  expect(screen.getByText('It could not be made. Try again.')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Make: Everything' })).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Writing as text' }).getAttribute('href')).toBe(
    '/api/recordings/r/export/writing.txt?ticket=t',
  );
});

test('captions that a recording has are shown below the picture, or above it, by the name of their language', async () => {
  watch(recording());
  const choice = await screen.findByRole('combobox', { name: 'Captions' });
  fireEvent.change(choice, { target: { value: 'pt' } });
  await waitFor(() => expect(screen.getByTestId('captions').getAttribute('lang')).toBe('pt'));
  const seen = () => screen.getByText('This recording is sound alone.');
  expect(screen.getByTestId('captions').compareDocumentPosition(seen())).toBe(2);
  fireEvent.change(screen.getByRole('combobox', { name: 'Place of the captions' }), {
    target: { value: 'above' },
  });
  expect(screen.getByTestId('captions').compareDocumentPosition(seen())).toBe(4);
});

test('a screen is large with the camera beside it, or the other way round; what is not shown now is not there', async () => {
  const picture = (kind: 'camera' | 'screen', at: number, length: number) => ({
    kind,
    at,
    length,
    path: `/${kind}${at}`,
  });
  const ana = { ...picture('camera', 36_000, 9000), member: 'ana' };
  watch(recording({ pictures: [picture('camera', 0, 30_000), picture('screen', 10_000, 30_000), ana] }));
  await screen.findByRole('heading', { name: 'Lecture 3' });
  const seen = () => [...document.querySelectorAll('video')].map((v) => v.getAttribute('src'));
  seek(1);
  expect(seen()).toEqual(['/camera0']);
  seek(12);
  expect(seen()).toEqual(['/screen10000', '/camera0']);
  fireEvent.keyDown(document.body, { key: 'v' });
  expect(seen()).toEqual(['/camera0', '/screen10000']);
  fireEvent.keyDown(document.body, { key: 'v' });
  expect(seen()).toEqual(['/screen10000']);
  seek(35);
  expect(seen()).toEqual(['/screen10000']);
  // A student's own says whose it is.
  seek(42);
  expect(screen.getByLabelText(/^Camera of /).getAttribute('aria-label')).not.toContain('Lecture 3');
  seek(50);
  expect(screen.getByText('Nothing was shown at this moment.')).toBeTruthy();
});

test('silences are passed over where one wishes, and keys do what their list says', async () => {
  watch(recording({ silences: [{ from: 20_000, until: 29_000 }] }));
  const skip = await screen.findByRole('switch', { name: 'Pass over silences (0:08 less)' });
  Object.defineProperty(HTMLMediaElement.prototype, 'paused', { configurable: true, get: () => false });
  seek(22);
  expect(document.querySelector('audio')!.currentTime).toBe(22);
  fireEvent.click(skip);
  seek(22);
  expect(document.querySelector('audio')!.currentTime).toBeCloseTo(28.6);
  fireEvent.keyDown(document.body, { key: ']' });
  expect(document.querySelector('audio')!.currentTime).toBe(40);
  fireEvent.keyDown(document.body, { key: '?' });
  expect(await screen.findByText('Pass over silences, or not')).toBeTruthy();
  Object.defineProperty(HTMLMediaElement.prototype, 'paused', { configurable: true, get: () => true });
});

test('while it is prepared the page says how far that is', async () => {
  watch(recording({ state: 'preparing', progress: 0.5 }));
  await waitFor(() => expect(screen.getByText('Being prepared, 50 %')).toBeTruthy());
});

test('a note is kept at the moment at which one began to write; a question says whose it is and what was answered', async () => {
  watch(recording());
  expect(await screen.findByText('Answered: By the rose.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /Ana Lanyon asks Why 210/ }));
  expect(document.querySelector('audio')!.currentTime).toBe(42);
  seek(20);
  const field = screen.getByRole('textbox', { name: 'A note at this moment' });
  fireEvent.change(field, { target: { value: 'Half tide' } });
  seek(33);
  fireEvent.click(screen.getByRole('checkbox', { name: 'Ask those who teach' }));
  fireEvent.click(screen.getByRole('button', { name: 'Ask' }));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'POST')).toMatchObject({
      path: '/api/recordings/r/notes',
      body: { position: 20_000, text: 'Half tide', asks: true },
    }),
  );
});

test('what plays keeps its address until that fails; then it goes on where it was with a new one', async () => {
  watch(recording());
  await screen.findByRole('heading', { name: 'Lecture 3' });
  const audio = () => document.querySelector('audio')!;
  seek(33);
  const path = '/api/recordings/r/media/sound.webm?ticket=later';
  answerRequests({ '/api/recordings/undefined': recording({ mediaPath: path }) });
  expect(audio().getAttribute('src')).toBe('/api/recordings/r/media?ticket=t');
  fireEvent.error(audio());
  await waitFor(() => expect(audio().getAttribute('src')).toBe(path));
  expect(audio().currentTime).toBe(33);
});

test('a moment chosen before anything is known of the film is gone to, though its address fails first', async () => {
  watch(recording());
  await screen.findByRole('heading', { name: 'Lecture 3' });
  let known = 0;
  Object.defineProperty(HTMLMediaElement.prototype, 'readyState', { configurable: true, get: () => known });
  const audio = () => document.querySelector('audio')!;
  fireEvent.click(await screen.findByRole('button', { name: /After the pause/ }));
  const path = '/api/recordings/r/media/sound.webm?ticket=later';
  answerRequests({ '/api/recordings/undefined': recording({ mediaPath: path }) });
  fireEvent.error(audio());
  await waitFor(() => expect(audio().getAttribute('src')).toBe(path));
  expect(audio().currentTime).toBe(0);
  known = 4;
  fireEvent.loadedMetadata(audio());
  expect(audio().currentTime).toBe(40);
  // Known, and not yet said so: another moment that is chosen just then counts.
  known = 0;
  fireEvent.click(screen.getByRole('button', { name: /Class begins/ }));
  known = 4;
  fireEvent.click(screen.getByRole('button', { name: /After the pause/ }));
  fireEvent.loadedMetadata(audio());
  expect(audio().currentTime).toBe(40);
});

test('what had failed before the page stood is asked for anew all the same', async () => {
  Object.defineProperty(HTMLAudioElement.prototype, 'error', { configurable: true, value: { code: 4 } });
  watch(recording());
  await screen.findByRole('heading', { name: 'Lecture 3' });
  await waitFor(() =>
    expect(asked.filter(({ path }) => path === '/api/recordings/undefined')).toHaveLength(2),
  );
  Reflect.deleteProperty(HTMLAudioElement.prototype, 'error');
});
