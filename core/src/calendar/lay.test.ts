import fc from 'fast-check';
import type { SessionChange } from './changes';
import { anyPattern, anyPeriods, anyTerm } from '../testing/plans';
import { changed } from './changes';
import { lay, type LaidSession } from './lay';
import { sessionsOf, type PlannedSession } from './sessions';

const HOUR = 3_600_000;
const planned = (...dates: string[]): PlannedSession[] =>
  dates.map((date, i) => {
    const startsAt = Date.parse(`${date}T18:00Z`);
    return { number: i + 1, date, start: '18:00', minutes: 60, startsAt, endsAt: startsAt + HOUR, week: 1 };
  });
const laid = (dates: string[], more: Record<string, Partial<LaidSession>> = {}): LaidSession[] =>
  planned(...dates).map((p) => ({
    id: p.date,
    date: p.date,
    number: p.number,
    startsAt: p.startsAt,
    endsAt: p.endsAt,
    lingerMinutes: 0,
    state: 'planned',
    title: null,
    own: [],
    replaces: null,
    record: null,
    ...more[p.date],
  }));
const TUESDAYS = ['2026-09-01', '2026-09-08', '2026-09-15'];
const WEDNESDAYS = ['2026-09-02', '2026-09-09', '2026-09-16'];

test('laid over nothing every date is new, laid again nothing changes', () => {
  const first = lay([], planned(...TUESDAYS), 0, null);
  expect(first.added.map((s) => s.date)).toEqual(TUESDAYS);
  const again = lay(laid(TUESDAYS), planned(...TUESDAYS), 0, null);
  expect(again).toEqual({ kept: laid(TUESDAYS), added: [], removed: [] });
});

test('a session whose date goes takes the new date of its week and keeps what it had', () => {
  const before = laid(TUESDAYS, {
    '2026-09-01': { title: 'Guest', own: ['title'] },
    '2026-09-08': { state: 'cancelled' },
    '2026-09-15': { endsAt: Date.parse('2026-09-15T20:00Z'), own: ['length'] },
  });
  const { kept, added, removed } = lay(before, planned(...WEDNESDAYS), 5, null);
  expect([added, removed]).toEqual([[], []]);
  expect(kept.map((s) => [s.id, s.date])).toEqual(TUESDAYS.map((t, i) => [t, WEDNESDAYS[i]]));
  expect(kept[0]).toMatchObject({ title: 'Guest', lingerMinutes: 5 });
  expect(kept[1]!.state).toBe('cancelled');
  expect(kept[2]!.endsAt - kept[2]!.startsAt).toBe(2 * HOUR);
});

test('what was held, is live, was added, was moved or lies before now stays as it is', () => {
  const own = Date.parse('2026-09-10T09:00Z');
  const before = laid([...TUESDAYS, '2026-09-22', '2026-09-26'], {
    '2026-09-01': { state: 'held' },
    '2026-09-15': { startsAt: own, endsAt: own + HOUR, state: 'moved', own: ['time'] },
    '2026-09-26': { own: ['added'] },
  });
  const now = Date.parse('2026-09-09T00:00Z');
  const { kept, removed, added } = lay(before, planned('2026-09-03'), 0, now);
  expect(kept.map((s) => s.date).sort()).toEqual(['2026-09-01', '2026-09-08', '2026-09-15', '2026-09-26']);
  expect(kept.find((s) => s.date === '2026-09-15')!.startsAt).toBe(own);
  expect(removed.map((s) => s.date)).toEqual(['2026-09-22']);
  expect(added).toEqual([]);
});

test('whatever is laid over whatever, every planned date has one session, ids stay and numbers follow the dates', () => {
  fc.assert(
    fc.property(
      anyTerm,
      anyPattern,
      anyPattern,
      anyPeriods,
      fc.array(fc.nat(40)),
      (term, a, b, periods, cancelled) => {
        const old = sessionsOf(term, a, undefined, periods).sessions.map((p, i): LaidSession => ({
          ...p,
          id: `s${i}`,
          lingerMinutes: 0,
          state: cancelled.includes(i) ? 'cancelled' : 'planned',
          title: null,
          own: [],
          replaces: null,
          record: null,
        }));
        const wanted = sessionsOf(term, b, undefined, periods).sessions;
        const { kept, added, removed } = lay(old, wanted, 0, null);
        const dates = [...kept, ...added]
          .filter((s) => wanted.some((w) => w.date === s.date))
          .map((s) => s.date);
        expect(dates.sort()).toEqual(wanted.map((w) => w.date));
        expect([...kept, ...removed].map((s) => s.id).sort()).toEqual(old.map((s) => s.id).sort());
        for (const s of kept.filter((k) => k.state === 'planned')) {
          const plan = wanted.find((w) => w.date === s.date)!;
          expect([s.startsAt, s.endsAt]).toEqual([plan.startsAt, plan.endsAt]);
        }
        const inOrder = [...kept, ...added].sort((x, y) => x.number - y.number).map((s) => s.date);
        expect(inOrder).toEqual([...inOrder].sort());
      },
    ),
    { numRuns: 300 },
  );
});

const NOW = Date.parse('2026-09-02T00:00Z');
const change = (scope: 'one' | 'later' | 'all', what: SessionChange, id = '2026-09-08', more = {}) =>
  changed(laid(TUESDAYS, more), id, scope, what, 'UTC', NOW);

test('moved with the later ones, sessions keep their distance; the past and what is over stay', () => {
  const later = change('later', { do: 'move', date: '2026-09-09', start: '09:30' });
  expect(later.map((s) => new Date(s.startsAt).toISOString())).toEqual([
    '2026-09-09T09:30:00.000Z',
    '2026-09-16T09:30:00.000Z',
  ]);
  for (const s of later)
    expect(s).toMatchObject({ state: 'moved', own: ['time'], endsAt: s.startsAt + HOUR });
  expect(change('all', { do: 'cancel' }).map((s) => s.id)).toEqual(['2026-09-08', '2026-09-15']);
  expect(change('all', { do: 'cancel' }, '2026-09-08', { '2026-09-15': { state: 'held' } })).toHaveLength(1);
});

test('of two weekdays only the one that is moved goes along', () => {
  const both = [...laid(TUESDAYS), ...laid(WEDNESDAYS)];
  const moved = changed(
    both,
    '2026-09-08',
    'later',
    { do: 'move', date: '2026-09-08', start: '10:00' },
    'UTC',
    NOW,
  );
  expect(moved.map((s) => s.id)).toEqual(['2026-09-08', '2026-09-15']);
});

test('each change says what a session then has of its own, and one that changes nothing is none', () => {
  expect(change('one', { do: 'lengthen', minutes: 90 })[0]).toMatchObject({ own: ['length'] });
  expect(change('one', { do: 'lengthen', minutes: 60 })).toEqual([]);
  expect(change('one', { do: 'rename', title: 'Guest' })[0]).toMatchObject({
    title: 'Guest',
    own: ['title'],
  });
  expect(change('one', { do: 'rename', title: null })).toEqual([]);
  expect(change('one', { do: 'record', automatic: false })[0]).toMatchObject({ record: false });
  expect(change('one', { do: 'restore' })).toEqual([]);
  const cancelled = { '2026-09-08': { state: 'cancelled' as const, own: ['time' as const] } };
  expect(change('one', { do: 'restore' }, '2026-09-08', cancelled)[0]).toMatchObject({ state: 'moved' });
  expect(change('one', { do: 'move', date: '2026-09-08', start: '18:00' })).toEqual([]);
  expect(change('one', { do: 'cancel' }, 'nobody')).toEqual([]);
});
