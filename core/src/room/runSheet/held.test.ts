import { lecture, maren } from '../../testing/index';
import { consequencesOf } from '../index';
import { takenBySegment } from './held';

const MINUTE = 60_000;

test('segments of one title are one over the term, planned and as they went', () => {
  const held = (title: string, minutes: number, took: number) => ({
    title,
    minutes,
    from: 0,
    until: took * MINUTE,
  });
  expect(
    takenBySegment([
      held('Welcome', 5, 8),
      held('Lecture', 40, 40),
      held('welcome ', 5, 4),
      held('Lecture', 50, 60),
    ]),
  ).toEqual([
    { title: 'Welcome', times: 2, planned: 5, took: 6, longest: 8 },
    { title: 'Lecture', times: 2, planned: 45, took: 50, longest: 60 },
  ]);
  expect(takenBySegment([])).toEqual([]);
});

test('with dismissal what was held is kept, ended where it was on', () => {
  const room = lecture();
  const segment = { title: 'Welcome', minutes: 5, limits: {}, recording: null };
  room.happen({ type: 'cued', by: 'maren', index: 0, segment, changes: {} });
  const before = room.state;
  room.do(maren, { type: 'dismiss' });
  const [event] = room.events.slice(-1);
  const kept = consequencesOf(before, [event!]).find((c) => c.do === 'keepSegments');
  expect(kept).toMatchObject({ held: [{ title: 'Welcome', minutes: 5, until: event!.at }] });
  expect(consequencesOf(lecture().state, [event!]).some((c) => c.do === 'keepSegments')).toBe(false);
});
