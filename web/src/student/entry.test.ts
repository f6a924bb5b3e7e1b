import ICAL from 'ical.js';
import type { MyCourse } from '@nimble-bell/core/api';
import { course, roomInfo } from '../testing/render';
import { entryOf } from './entry';

test('a session is put into a calendar with its time, its name and the way in', () => {
  const { session } = roomInfo({ member: 'ana', role: 'student' });
  const startsAt = Date.UTC(2026, 10, 26, 21, 30);
  const own = { ...session, title: 'Tides', startsAt, endsAt: startsAt + 80 * 60_000 };
  const mine = { course: { id: 'c', code: 'TID-101', title: 'Reading the Tides', term: course().term } };
  const text = entryOf(mine as MyCourse, own as never, 'https://bell.example/in/abc', 0);
  const [event] = new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent');
  const read = new ICAL.Event(event!);
  expect(read.startDate.toJSDate().getTime()).toBe(startsAt);
  expect(read.endDate.toJSDate().getTime()).toBe(own.endsAt);
  expect(read.summary).toBe(`TID-101 ${own.seriesTitle}: Tides`);
  expect(event!.getFirstPropertyValue('url')).toBe('https://bell.example/in/abc');
});
