import fc from 'fast-check';
import { mondayOf, toEpochDay, toMinutes } from '../calendar/localDate';
import { toInstant } from '../calendar/zone';
import { hourOf } from '../calendar/zones';
import { makeUps, rankMakeUps, type Attendee, type MakeUpQuestion } from './index';
import { autumn } from '../testing/autumn';

const term = autumn({ lastDay: '2026-11-01' });
const at = (date: string, clock: string) => toInstant(term.zone, toEpochDay(date), toMinutes(clock));
const busyAt = (date: string, clock: string, minutes: number) => ({
  startsAt: at(date, clock),
  endsAt: at(date, clock) + minutes * 60_000,
});
const free = (zone = 'America/Halifax'): Attendee => ({ zone, busy: [] });
const question = (more: Partial<MakeUpQuestion> = {}): MakeUpQuestion => ({
  term,
  minutes: 80,
  now: at('2026-10-08', '12:00'),
  noticeHours: 48,
  periods: [],
  lost: { startsAt: at('2026-10-13', '18:30') },
  teachers: [free()],
  students: [free(), free(), free('Europe/Lisbon')],
  ...more,
});

test('the best slot is near the lost one, on no day off, at a good hour for all, with notice', () => {
  const [best] = rankMakeUps(question());
  expect(best!.date > '2026-10-10' && !(best!.date >= '2026-10-12' && best!.date <= '2026-10-18')).toBe(true);
  expect(best).toMatchObject({ busy: 0, unsociable: 0 });
  expect(best!.reasons).toContain('nobody of 3 has another class');
  const days = rankMakeUps(question()).map((s) => s.date);
  expect(new Set(days).size).toBeGreaterThanOrEqual(days.length / 2);
  expect(best!.reasons.at(-1)).toMatch(/days? (before|after) the lost session/);
});

test('a teacher who is busy rules a slot out; a student who is makes it dearer and says so', () => {
  const slots = rankMakeUps(
    question({ teachers: [{ zone: term.zone, busy: [busyAt('2026-10-19', '10:00', 13 * 60)] }] }),
    5000,
  );
  expect(slots.some((s) => s.date === '2026-10-19')).toBe(true);
  expect(slots.filter((s) => s.date === '2026-10-19' && s.start > '08:40').length).toBe(0);
  const taken = rankMakeUps(
    question({
      students: [
        free(),
        { zone: term.zone, busy: [busyAt('2026-10-20', '10:00', 50), busyAt('2026-10-20', '10:30', 50)] },
      ],
    }),
    5000,
    99,
  );
  const slot = taken.find((s) => s.date === '2026-10-20' && s.start === '10:00')!;
  expect(slot.busy).toBe(1);
  expect(slot.reasons).toContain('1 of 2 has another class');
});

test('an unsociable hour is named with the people and the place it is for', () => {
  const slots = rankMakeUps(question({ periods: [{ name: 'E1', start: '18:30', end: '20:00' }] }), 5000, 99);
  const slot = slots.find((s) => s.date === '2026-10-20' && s.start === '18:30')!;
  expect(slot.reasons.join('; ')).toContain('22:30 for 1 in Lisbon');
  expect(slot.unsociable).toBe(1);
  expect(slots.find((s) => s.start === '10:00')!.reasons).toContain('not on the bell times');
});

test.each([
  ['09:00', 80, 'good'],
  ['07:30', 60, 'late'],
  ['21:00', 75, 'late'],
  ['22:30', 80, 'night'],
  ['05:00', 60, 'night'],
  ['23:30', 60, 'night'],
])('%s for %d minutes is %s', (clock, minutes, hour) => {
  const startsAt = at('2026-10-06', clock);
  expect(hourOf(term.zone, startsAt, startsAt + minutes * 60_000)).toBe(hour);
});

test('no slot overlaps a teacher, a day off, the term or the notice, and the counts are those of the plain way', () => {
  const anyBusy = fc.array(
    fc
      .tuple(
        fc.integer({ min: 0, max: 40 }),
        fc.integer({ min: 0, max: 1380 }),
        fc.integer({ min: 10, max: 300 }),
      )
      .map(([day, minute, minutes]) => {
        const startsAt = toInstant(term.zone, toEpochDay('2026-09-25') + day, minute);
        return { startsAt, endsAt: startsAt + minutes * 60_000 };
      }),
    { maxLength: 12 },
  );
  fc.assert(
    fc.property(
      anyBusy,
      fc.array(anyBusy, { maxLength: 5 }),
      fc.integer({ min: 10, max: 200 }),
      (teacher, others, minutes) => {
        const q = question({
          minutes,
          teachers: [{ zone: term.zone, busy: teacher }],
          students: others.map((busy) => ({ zone: term.zone, busy })),
        });
        for (const slot of rankMakeUps(q, 10_000, 99)) {
          const meets = (b: { startsAt: number; endsAt: number }) =>
            b.startsAt < slot.endsAt && slot.startsAt < b.endsAt;
          expect(teacher.some(meets)).toBe(false);
          expect(slot.busy).toBe(others.filter((busy) => busy.some(meets)).length);
          expect(slot.startsAt).toBeGreaterThanOrEqual(q.now + 48 * 3_600_000);
          expect(slot.date <= term.lastDay && !(slot.date >= '2026-10-12' && slot.date <= '2026-10-18')).toBe(
            true,
          );
        }
      },
    ),
    { numRuns: 40 },
  );
});

test('slots that lie apart come before those that overlap a better one', () => {
  const slots = rankMakeUps(question(), 5000, 99);
  const overlaps = (a: (typeof slots)[0], b: (typeof slots)[0]) =>
    a.startsAt < b.endsAt && b.startsAt < a.endsAt;
  const apart = slots.findIndex((s, i) => slots.slice(0, i).some((better) => overlaps(s, better)));
  expect(apart).toBeGreaterThan(10);
  for (const [i, s] of slots.entries())
    expect(slots.slice(0, apart).some((better, k) => k < i && overlaps(s, better))).toBe(i >= apart);
});

test('the map has every open slot of its week, with the counts of the ranking; unasked it is the best slot’s week', () => {
  const { best, week, students } = makeUps(question(), null);
  expect(students).toBe(3);
  expect(mondayOf(toEpochDay(best[0]!.date))).toBe(toEpochDay(week.monday));
  const all = rankMakeUps(question(), 5000, 99);
  const other = makeUps(question(), '2026-10-22').week;
  expect(other.monday).toBe('2026-10-19');
  const inWeek = all.filter((s) => s.date >= '2026-10-19' && s.date <= '2026-10-25');
  expect(other.slots).toHaveLength(inWeek.length);
  for (const s of inWeek)
    expect(other.slots.find((o) => o.startsAt === s.startsAt)).toMatchObject({
      ...{ busy: s.busy, unsociable: s.unsociable, cost: s.cost },
    });
});
