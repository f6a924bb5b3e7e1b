import { cutFrom } from './cutFrom';

test('a sentence is a line once the next has begun; what is long is cut between words', () => {
  expect(cutFrom('The tide tur')).toEqual({ lines: [], rest: 'The tide tur' });
  expect(cutFrom('The tide turns.')).toEqual({ lines: [], rest: 'The tide turns.' });
  expect(cutFrom('The tide turns. At s')).toEqual({ lines: ['The tide turns.'], rest: 'At s' });
  expect(cutFrom('Now? “Yes.” Then')).toEqual({ lines: ['Now?', '“Yes.”'], rest: 'Then' });
  const long = 'and so '.repeat(14);
  const { lines, rest } = cutFrom(long);
  expect(lines).toHaveLength(1);
  expect(lines[0]!.length).toBeLessThanOrEqual(74);
  expect(`${lines[0]} ${rest}`).toBe(long);
  // One word without an end is not cut.
  expect(cutFrom('x'.repeat(120)).lines).toEqual([]);
});
