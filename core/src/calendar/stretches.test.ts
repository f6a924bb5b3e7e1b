import { autumn } from '../testing/autumn';
import type { WeeklyPattern } from './plan';
import { changed, patternWords, scheduleWords, sessionsOf, type LaidSession } from './index';

const term = autumn();
const pattern: WeeklyPattern = {
  kind: 'weekly',
  every: 1,
  lingerMinutes: 0,
  ends: { by: 'term' },
  days: [
    { day: 'tuesday', start: '18:30', minutes: 80 },
    { day: 'thursday', start: '18:30', minutes: 80 },
  ],
};
const laid = (): LaidSession[] =>
  sessionsOf(term, pattern).sessions.map((s) => ({
    ...s,
    id: s.date,
    lingerMinutes: 0,
    state: 'planned',
    title: null,
    own: [],
    replaces: null,
    record: null,
  }));
const words = (sessions: LaidSession[]) => scheduleWords(pattern, [], sessions, term.zone);
const apply = (
  sessions: LaidSession[],
  id: string,
  scope: 'one' | 'later',
  change: Parameters<typeof changed>[3],
) => {
  const after = new Map(changed(sessions, id, scope, change, term.zone, 0).map((s) => [s.id, s]));
  return sessions.map((s) => after.get(s.id) ?? s);
};

test('a series meets as its pattern says, whatever single sessions do', () => {
  expect(words(laid())).toBe(patternWords(pattern));
  const one = apply(laid(), '2026-11-03', 'one', { do: 'move', date: '2026-11-04', start: '12:00' });
  expect(words(one)).toBe(patternWords(pattern));
  const cancelled = apply(laid(), '2026-11-03', 'later', { do: 'cancel' });
  expect(words(cancelled)).toBe(patternWords(pattern));
});

test('after "this and later" each stretch is said with its days and times', () => {
  const later = apply(laid(), '2026-11-03', 'later', { do: 'move', date: '2026-11-04', start: '12:00' });
  expect(words(later)).toBe(
    'Tue and Thu 18:30–19:50 until Thu 29 Oct; Wed 12:00–13:20 and Thu 18:30–19:50 from Wed 4 Nov',
  );
});

test('what changes again is another stretch', () => {
  const once = apply(laid(), '2026-11-03', 'later', { do: 'move', date: '2026-11-04', start: '12:00' });
  const twice = apply(once, '2026-11-19', 'later', { do: 'lengthen', minutes: 50 });
  expect(words(twice)).toBe(
    'Tue and Thu 18:30–19:50 until Thu 29 Oct; Wed 12:00–13:20 and Thu 18:30–19:50 until Wed 18 Nov; ' +
      'Wed 12:00–13:20 and Thu 18:30–19:20 until Thu 19 Nov; Wed 12:00–12:50 and Thu 18:30–19:20 from Wed 25 Nov',
  );
});

test('a series all of which was moved alike has the new time alone', () => {
  const all = apply(laid(), '2026-09-01', 'later', { do: 'move', date: '2026-09-02', start: '12:00' });
  const both = apply(all, '2026-09-03', 'later', { do: 'move', date: '2026-09-03', start: '13:00' });
  expect(words(both)).toBe('Wed 12:00–13:20 and Thu 13:00–14:20');
});
