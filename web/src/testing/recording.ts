import { fireEvent } from '@testing-library/react';
import type { RecordingDetail, StoredEvent } from '@nimble-bell/core/api';

const START = Date.UTC(2026, 9, 6, 21, 30);
const at = (seconds: number, body: object, seq: number) =>
  ({ ...body, at: START + seconds * 1000, seq }) as StoredEvent;

const said = { type: 'said', from: 'maren', addressee: { to: 'class' }, place: 'class' };
const stroke = { points: [0, 0, 1, 1], colour: 'ink' };
const EVENTS = [
  at(-5, { type: 'entered', member: 'maren', name: 'Maren Oduya', role: 'teacher' }, 1),
  at(10, { ...said, text: 'Early word.' }, 2),
  at(30, { type: 'drawn', by: 'maren', stroke, place: 'class', side: 1 }, 3),
  at(110, { ...said, text: 'Late word.' }, 4),
];

/** A recording of a minute, with a pause in it. */
export const recording = (more: Partial<RecordingDetail> = {}): RecordingDetail => ({
  id: 'r',
  sessionId: 's',
  title: 'Lecture 3',
  startsAt: START,
  state: 'ready',
  progress: 1,
  lengthMs: 60_000,
  bytes: 1000,
  keepUntil: '2027-02-11',
  mayDownload: false,
  parts: [
    { from: START, until: START + 40_000 },
    { from: START + 100_000, until: START + 120_000 },
  ],
  chaptersWritten: false,
  chapters: [
    { title: 'Class begins', position: 0 },
    { title: 'After the pause', position: 40_000 },
  ],
  gaps: [
    { position: 40_000, missing: 60_000, why: 'paused' },
    { position: 50_000, missing: 3000, why: 'interrupted' },
  ],
  events: EVENTS,
  pictures: [],
  tables: [],
  strip: { open: [], floor: [], signs: [], written: [] },
  silences: [],
  leavesOut: [],
  teaching: false,
  caring: false,
  plan: null,
  goneAt: null,
  still: null,
  resume: 0,
  zone: 'Atlantic/Azores',
  read: [],
  pages: { path: '/api/recordings/rec/slides', query: '' },
  films: { path: '/api/recordings/rec/films', query: '' },
  mediaPath: '/api/recordings/r/media?ticket=t',
  captions: [{ language: 'pt', path: '/api/recordings/r/captions/pt?ticket=t' }],
  ...more,
});

/** What plays in a page is played by the test. */
export function playable() {
  HTMLMediaElement.prototype.play = async () => {};
  Object.defineProperty(HTMLMediaElement.prototype, 'readyState', { configurable: true, get: () => 4 });
}

/** Moves the film to a second. */
export function seek(seconds: number) {
  const video = document.querySelector('audio')!;
  Object.defineProperty(video, 'currentTime', { value: seconds, writable: true, configurable: true });
  fireEvent.timeUpdate(video);
}

/** A recording that stands. */
export const STILL = { now: () => 0, plays: () => false, pace: () => 1 };
