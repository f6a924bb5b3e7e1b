import type { Message } from '@nimble-bell/core/room';
import { heardBetween, type Heard } from './hearing';

const NAMES: Record<string, string> = { ana: 'Ana Lanyon', ben: 'Ben Garrow', maren: 'Maren Oduya' };
const nameOf = (m: string) => NAMES[m] ?? m;
const tableName = (place: string) => `Table ${place}`;
const teacher = { me: 'maren', teaching: true, nameOf, tableName };
const student = { me: 'ana', teaching: false, nameOf, tableName };
const said = (seq: number, from: string, addressee: Message['addressee'], text: string): Message => ({
  ...{ seq, at: 0, from, addressee, text, place: 'class' },
});
const room = (
  hands: string[] = [],
  messages: Message[] = [],
  knocks: string[] = [],
  calls: string[] = [],
): Heard => ({
  hands: hands.map((member) => ({ member })),
  messages,
  knocks: knocks.map((member) => ({ member, name: nameOf(member) })),
  calls: calls.map((place) => ({ place })),
});

test('a hand is said once, with its name and how many are up, to those who teach', () => {
  expect(heardBetween(room(), room(['ana']), teacher)).toEqual(['Ana Lanyon raised a hand.']);
  expect(heardBetween(room(['ana']), room(['ana', 'ben']), teacher)).toEqual([
    'Ben Garrow raised a hand. 2 hands are up.',
  ]);
  expect(heardBetween(room(['ana', 'ben']), room(['ben']), teacher)).toEqual([]);
  expect(heardBetween(room(), room(['a', 'b', 'c', 'd']), teacher)).toEqual(['4 people raised a hand.']);
  expect(heardBetween(room(), room(['ben']), student)).toEqual([]);
});

test('that a table asks is said to those who teach, once', () => {
  const asks = room([], [], [], ['2']);
  expect(heardBetween(room(), asks, teacher)).toEqual(['Table 2 asks for you.']);
  expect(heardBetween(asks, asks, teacher)).toEqual([]);
  expect(heardBetween(room(), asks, student)).toEqual([]);
});

test('what is written to one is read; to the class one word is read, and a burst is counted', () => {
  const one = said(1, 'ben', { to: 'class' }, 'When does it turn?');
  const two = said(2, 'maren', { to: 'class' }, 'At six.');
  const mine = said(3, 'maren', { to: 'member', member: 'ana' }, 'Well read.');
  const teachers = said(4, 'ben', { to: 'teachers' }, 'I cannot hear.');
  expect(heardBetween(room(), room([], [one]), student)).toEqual(['Ben Garrow: When does it turn?']);
  expect(heardBetween(room(), room([], [one, two, mine, teachers]), student)).toEqual([
    'Maren Oduya to you: Well read.',
    '2 new in the talk, the last from Maren Oduya.',
  ]);
  expect(heardBetween(room([], [one]), room([], [one, two, teachers]), teacher)).toEqual([
    'Ben Garrow to the teachers: I cannot hear.',
  ]);
});

test('who knocks is said once, with a name; many are counted', () => {
  expect(heardBetween(room(), room([], [], ['ana']), teacher)).toEqual(['Ana Lanyon knocked.']);
  expect(heardBetween(room([], [], ['ana']), room([], [], ['ana', 'ben']), teacher)).toEqual([
    'Ben Garrow knocked. 2 wait at the door.',
  ]);
  const five = ['a', 'b', 'c', 'd', 'e'];
  expect(heardBetween(room(), room([], [], five), teacher)).toEqual(['5 people knocked.']);
  expect(heardBetween(room([], [], five), room(), teacher)).toEqual([]);
});
