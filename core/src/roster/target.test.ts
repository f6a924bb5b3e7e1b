import { isFor } from './target';

test('a group session is for its group and for those who teach', () => {
  const lab = { group: 'A', published: true, seriesId: 'lab' };
  const all = { group: null, published: true, seriesId: 'lecture' };
  const draft = { ...all, published: false };
  expect(isFor(lab, { group: 'A', role: 'student' })).toBe(true);
  expect(isFor(lab, { group: 'B', role: 'student' })).toBe(false);
  expect(isFor(lab, { group: null, role: 'teacher' })).toBe(true);
  expect(isFor(all, { group: 'B', role: 'student' })).toBe(true);
  expect(isFor(draft, { group: 'B', role: 'student' })).toBe(false);
  expect(isFor(draft, { group: null, role: 'assistant' })).toBe(true);
});

test('whoever is here for some sessions has those and no other, whatever their role', () => {
  const session = { group: null, published: true, seriesId: 'lecture', sessionId: 's1' };
  for (const role of ['guest', 'assistant', 'teacher'] as const) {
    const one = { group: null, role, scope: { series: [], sessions: ['s1'] } };
    expect(isFor(session, one)).toBe(true);
    expect(isFor({ ...session, sessionId: 's2' }, one)).toBe(false);
    expect(
      isFor({ ...session, sessionId: 's2' }, { ...one, scope: { series: ['lecture'], sessions: [] } }),
    ).toBe(true);
  }
});
