import { TRACK_KINDS } from '@nimble-bell/core/limits';
import { changes } from './janus';

const all = TRACK_KINDS;
const large = false;
const known = new Map([
  ['maren', { number: 1, kinds: all, small: large }],
  ['ana', { number: 2, kinds: all, small: large }],
]);
type Wanted = Omit<Parameters<typeof changes>[1][number], 'small'> & { small?: boolean };
const feeds = (list: { feed: string; mid: string; substream?: number }[]) =>
  list.map((f) => `${f.feed} ${f.mid}${f.substream === 0 ? ' small' : ''}`);
const changed = (wanted: Wanted[], publishing = ['maren', 'ana', 'ben']) => {
  const { streams, ended, resized } = changes(
    known,
    wanted.map((w) => ({ small: large, ...w })),
    (p) => publishing.includes(p),
  );
  return {
    ...{ streams: feeds(streams), ended: feeds(ended) },
    ...(resized.length && { resized: feeds(resized) }),
  };
};

test('who is somewhere else now is received no more, though they publish on', () => {
  expect(changed([{ publisher: 'ben', number: 1, kinds: all }])).toEqual({
    streams: ['ben 0', 'ben 1', 'ben 2'],
    ended: ['maren 0', 'maren 1', 'maren 2', 'ana 0', 'ana 1', 'ana 2'],
  });
  expect(changed([]).ended).toHaveLength(6);
});

test('of who went the relay itself lets go; who publishes anew begins anew; one kind goes without the others', () => {
  expect(changed([], ['maren'])).toEqual({ streams: [], ended: ['maren 0', 'maren 1', 'maren 2'] });
  expect(
    changed([
      { publisher: 'maren', number: 7, kinds: ['sound'] },
      { publisher: 'ana', number: 2, kinds: ['sound', 'screen'] },
    ]),
  ).toEqual({ streams: ['maren 0'], ended: ['ana 1'] });
});

test('a camera comes in the size it is wanted in, and in another without anything negotiated', () => {
  const maren = { publisher: 'maren', number: 1, kinds: all };
  const ana = { publisher: 'ana', number: 2, kinds: all };
  expect(changed([maren, { ...ana, small: true }])).toEqual({
    streams: [],
    ended: [],
    resized: ['ana 1 small'],
  });
  expect(changed([maren, ana])).toEqual({ streams: [], ended: [] });
  // Published anew it is another camera; without a camera there is nothing to be small.
  expect(changed([maren, { ...ana, number: 3, small: true }]).streams).toEqual([
    'ana 0',
    'ana 1 small',
    'ana 2',
  ]);
  expect(changed([maren, { ...ana, kinds: ['sound', 'screen'], small: true }])).toEqual({
    streams: [],
    ended: ['ana 1'],
  });
});
