import { TRACK_KINDS } from '@nimble-bell/core/limits';
import { changes } from './janus';

const all = TRACK_KINDS;
const known = new Map([
  ['maren', { number: 1, kinds: all }],
  ['ana', { number: 2, kinds: all }],
]);
const feeds = (list: { feed: string; mid: string }[]) => list.map((f) => `${f.feed} ${f.mid}`);
const changed = (wanted: Parameters<typeof changes>[1], publishing = ['maren', 'ana', 'ben']) => {
  const { streams, ended } = changes(known, wanted, (p) => publishing.includes(p));
  return { streams: feeds(streams), ended: feeds(ended) };
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
