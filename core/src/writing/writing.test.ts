import fc from 'fast-check';
import { ladderOf, SHIPPED_SHEETS, underSheet } from '../limits/index';
import { dueBy, layersOf, may, nextDue, refusalWords } from '../room/index';
import { noSettings, withValues, type Layer } from '../settings/index';
import { ana, courseLimits, entry, LECTURE, maren, opening, TestRoom } from '../testing/index';
import { COLLEGE_WRITING, writingNow, writingTimes, writingWords, type WritingTimes } from './index';

const open = courseLimits({ writeToClass: 'open', writeToStudents: 'open', writeToTeachers: 'open' });
const series = (writing: Partial<WritingTimes>): Layer => ({
  name: 'series',
  settings: withValues(noSettings(), 'writing', writing, 'teo', 5),
});
const room = (writing: Partial<WritingTimes>, more = {}) =>
  new TestRoom().happen(
    opening([open, series(writing)], more),
    entry('maren', 'Maren Oduya', 'teacher'),
    entry('ana'),
  );
const mayWrite = ({ state }: TestRoom) =>
  (['writeToClass', 'writeToTeachers', 'writeToStudents'] as const).map((c) => may(state, ana, c).allowed);

test('before ring-in, in class and past the planned end are three times of the same capability', () => {
  const class_ = room({ early: 'teachers', linger: 'closed' });
  expect(mayWrite(class_)).toEqual([false, true, false]);
  const say = { type: 'say', addressee: { to: 'class' }, text: 'Hello' } as const;
  expect(class_.refusal(ana, say)?.message).toContain('closed at this time');
  // The ladder says who set it, and where.
  expect(ladderOf(layersOf(class_.state), 'writeToClass').find((r) => r.inForce)).toMatchObject({
    ...{ layer: 'time', by: 'teo', at: 5 },
  });
  class_.do(maren, { type: 'ringIn' });
  expect(mayWrite(class_)).toEqual([true, true, true]);
  class_.do(maren, { type: 'setLimit', capability: 'writeToTeachers', state: 'byHand' });
  class_.do(maren, { type: 'setLimit', capability: 'speak', state: 'open' });
  expect(nextDue(class_.state)).toEqual({ at: LECTURE.endsAt, events: [{ type: 'lingerBegan' }] });
  class_.later = LECTURE.endsAt;
  class_.happen(...dueBy(class_.state, class_.now));
  expect(mayWrite(class_)).toEqual([false, false, false]);
  expect(class_.state.notice?.text).toBe('The planned end is here. Writing to the class is now closed.');
  expect(refusalWords(class_.state, ana, 'writeToTeachers')).toContain('at this time');
  // Of what was set in class, what writing has nothing to do with stays; nothing happens twice.
  expect(may(class_.state, ana, 'speak').because.layer).toBe('live');
  expect(nextDue(class_.state)).toBeNull();
  // A teacher's word after that counts; a later end is class time again.
  class_.do(maren, { type: 'setLimit', capability: 'writeToClass', state: 'open' });
  expect(mayWrite(class_)).toEqual([true, false, false]);
  class_.happen({ type: 'replanned', times: { ...LECTURE, endsAt: LECTURE.endsAt * 3 } });
  expect(mayWrite(class_)).toEqual([true, true, true]);
});

test('where nothing is said nothing ends; a room without dates has no end', () => {
  const plain = room({});
  expect(mayWrite(plain)).toEqual([true, true, true]);
  plain.do(maren, { type: 'ringIn' });
  expect(nextDue(plain.state)).toBeNull();
  const standing = room({ linger: 'closed' }, { kind: 'open' });
  standing.do(maren, { type: 'ringIn' });
  expect(nextDue(standing.state)).toBeNull();
});

test('outside of the room one may write in the hours that are said, of a dated session alone, and at no other instant', () => {
  const HOUR = 3_600_000;
  const times = fc.record({
    ...{ early: fc.constant('asInClass' as const), linger: fc.constant('asInClass' as const) },
    aheadHours: fc.integer({ min: 0, max: 200 }),
    afterHours: fc.integer({ min: 0, max: 200 }),
  });
  const state = fc.constantFrom('planned', 'moved', 'live', 'held', 'cancelled');
  fc.assert(
    fc.property(times, state, fc.integer({ min: -300, max: 300 }), fc.boolean(), (t, s, hour, dated) => {
      const session = { startsAt: 0, endsAt: HOUR, state: s, dated };
      const found = writingNow(session, t, 15, hour * HOUR);
      const ahead = (s === 'planned' || s === 'moved') && hour >= -t.aheadHours && hour < -0.25;
      const after = s === 'held' && hour < 1 + t.afterHours;
      expect(found?.when ?? null).toBe(dated ? (ahead ? 'ahead' : after ? 'after' : null) : null);
      if (found) expect(found.until).toBeGreaterThan(hour * HOUR);
    }),
  );
});

test('a sheet says it with its limits, the narrowest place counts, and every value has its words', () => {
  const lecture = SHIPPED_SHEETS.find((s) => s.id === 'lecture')!;
  const layer: Layer = { name: 'course', settings: underSheet(noSettings(), lecture, 'maren', 1) };
  expect(writingTimes([])).toEqual(COLLEGE_WRITING);
  expect(writingTimes([layer])).toMatchObject({ aheadHours: 24, afterHours: 168 });
  expect(writingTimes([layer, series({ afterHours: 0 })]).afterHours).toBe(0);
  expect(writingWords('afterHours', 168)).toBe('writing after the class: a week');
  expect(writingWords('linger', 'teachers')).toBe('writing after the planned end: to those who teach alone');
  expect(writingWords('aheadHours', 5)).toBe('writing before the door opens: 5 hours');
});
