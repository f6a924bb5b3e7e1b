import type { Message } from '@nimble-bell/core/room';
import { NO_SIEVE, sieved } from './sieve';

const message = (seq: number, from: string, text: string, more: Partial<Message> = {}): Message => ({
  ...{ seq, at: seq, from, text, addressee: { to: 'class' }, place: 'class' },
  ...more,
});
const ALL = [
  message(1, 'ana', 'Is the Höhe known?', { kept: 'later' }),
  message(2, 'ben', 'At six', { kept: 'answered' }),
  message(3, 'ana', 'Thank you'),
];
const found = (sieve: Partial<typeof NO_SIEVE>) =>
  sieved(ALL, { ...NO_SIEVE, ...sieve }, (m) => (m === 'ana' ? 'Ana Lanyon' : 'Ben Garrow')).map(
    (m) => m.seq,
  );

test('what was written is found by words and names, without accents; questions by how they are kept', () => {
  expect(found({})).toEqual([1, 2, 3]);
  expect(found({ words: 'hohe' })).toEqual([1]);
  expect(found({ words: 'LANYON thank' })).toEqual([3]);
  expect(found({ words: 'nothing' })).toEqual([]);
  expect(found({ kept: 'later' })).toEqual([1]);
  expect(found({ kept: 'all', words: 'six' })).toEqual([2]);
});
