import fc from 'fast-check';
import { many } from '../testing/index';
import { Hands, movedIn, type Letter } from './index';

const by = (member: string, text: string): Letter[] => [...text].map((t) => ({ text: t, member }));

test('letters are by the hand of their client, but for those that were only put elsewhere', () => {
  const hands = new Hands(
    [
      { client: 1, member: 'ana' },
      { client: 2, member: null },
    ],
    [
      { client: 1, clock: 14, length: 3, member: 'cleo' },
      { client: 1, clock: 10, length: 2, member: 'ben' },
    ],
  );
  expect(hands.of({ client: 1, clock: 8, length: 12 })).toEqual([
    { member: 'ana', length: 2 },
    { member: 'ben', length: 2 },
    { member: 'ana', length: 2 },
    { member: 'cleo', length: 3 },
    { member: 'ana', length: 3 },
  ]);
  expect(hands.of({ client: 1, clock: 11, length: 1 })).toEqual([{ member: 'ben', length: 1 }]);
  expect(hands.of({ client: 2, clock: 0, length: 4 })).toEqual([{ member: null, length: 4 }]);
  expect(hands.of({ client: 3, clock: 0, length: 1 })).toEqual([{ member: null, length: 1 }]);
});

test('what is put where something was taken stays whose it was: whole, a part of it, or with more around it', () => {
  const put = (clock: number, text: string) => ({ client: 9, clock, length: text.length, text });
  const taken = [[...by('ana', 'Springs '), ...by('ben', 'come')]];
  expect(movedIn([put(5, 'Springs come')], taken)).toEqual([
    { client: 9, clock: 5, length: 8, member: 'ana' },
    { client: 9, clock: 13, length: 4, member: 'ben' },
  ]);
  expect(movedIn([put(5, 'ngs co')], taken)).toEqual([
    { client: 9, clock: 5, length: 4, member: 'ana' },
    { client: 9, clock: 9, length: 2, member: 'ben' },
  ]);
  expect(movedIn([put(0, 'My Springs come!')], taken)).toEqual([
    { client: 9, clock: 3, length: 8, member: 'ana' },
    { client: 9, clock: 11, length: 4, member: 'ben' },
  ]);
  // Once taken, put once: what is typed beside it is whoever's types it.
  expect(movedIn([put(0, 'come'), put(4, 'come')], taken)).toEqual([
    { client: 9, clock: 0, length: 4, member: 'ben' },
  ]);
  expect(movedIn([put(0, 'Neaps')], taken)).toEqual([]);
  // Nobody makes words of another's letters.
  expect(movedIn([put(0, 'n'), put(1, 'o')], taken)).toEqual([]);
});

test('no letter is moved twice, nor one that was not put', () => {
  const word = fc.string({ unit: fc.constantFrom('a', 'b', ' '), minLength: 1, maxLength: 9 });
  fc.assert(
    fc.property(fc.array(word, { maxLength: 5 }), fc.array(word, { maxLength: 5 }), (puts, takes) => {
      let clock = 0;
      const put = puts.map((text) => ({ client: 1, clock: (clock += 10) - 10, length: text.length, text }));
      const moved = movedIn(
        put,
        takes.map((text, i) => by(`m${i}`, text)),
      );
      const letters = moved.flatMap((m) => Array.from({ length: m.length }, (_, i) => m.clock + i));
      expect(new Set(letters).size).toBe(letters.length);
      for (const at of letters) expect(put.some((p) => at >= p.clock && at < p.clock + p.length)).toBe(true);
      expect(letters.length).toBeLessThanOrEqual(takes.join('').length);
    }),
    { numRuns: many(500) },
  );
});
