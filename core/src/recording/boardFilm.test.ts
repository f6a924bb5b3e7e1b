import fc from 'fast-check';
import { boardSvg } from '../board/index';
import { ana, anyStep, lecture, maren } from '../testing/index';
import type { OnBoard } from '../room/index';
import { boardFilm, STAYS_MS } from './index';

const stroke = (x: number) => ({ points: [x, 0.1, x, 0.9], colour: 'clay' as const });

const count = ({ marks }: OnBoard) => {
  const texts = marks.filter((m) => m.kind === 'text').length;
  return [marks.length - texts, texts];
};

test('a board is looked at from its first mark until it is cleared, or a minute after its last', () => {
  const room = lecture({ draw: 'open' });
  const begin = room.now;
  const parts = [{ from: begin, until: begin + 600_000 }];
  const at = (ms: number) => {
    room.later += begin + ms - room.now;
  };
  const draw = (x: number) => room.do(ana, { type: 'draw', stroke: stroke(x) });
  at(10_100);
  draw(0.1);
  at(10_200);
  draw(0.2);
  at(40_000);
  draw(0.3);
  at(300_000);
  room.do(maren, { type: 'putText', text: { text: 'Ebb & <flood>', at: [0.1, 0.1], colour: 'ink' } });
  at(310_000);
  room.do(maren, { type: 'clearBoard' });
  const film = boardFilm(room.events, parts, 600_000);
  expect(film.frames.map((f) => [f.at, ...count(f.on)])).toEqual([
    [10_500, 2, 0],
    [40_000, 3, 0],
    [300_000, 3, 1],
    [310_000, 0, 0],
  ]);
  expect(film.frames.map(({ added }) => added && count(added))).toEqual([[2, 0], [1, 0], [0, 1], null]);
  expect(film.shown).toEqual([
    { from: 10_500, until: 40_000 + STAYS_MS },
    { from: 300_000, until: 310_000 },
  ]);
  const svg = boardSvg(film.frames[2]!.on, 1280);
  expect(svg).toContain('Ebb &amp; &lt;flood&gt;');
  expect(svg).toMatch(/^<svg [^>]*width="1280" height="720"/);
  expect(svg.match(/<path /g)).toHaveLength(3);
  // A class without a mark has no board.
  expect(boardFilm([], parts, 600_000)).toEqual({ frames: [], shown: [] });
});

test('whatever happens, its frames are in order and few, and it is looked at in stretches that do not meet', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { maxLength: 60 }), (steps) => {
      const room = lecture({ draw: 'open' });
      const from = room.now;
      for (const [actor, command] of steps) room.do(actor, command);
      const length = Math.max(1, room.now - from);
      const { frames, shown } = boardFilm(room.events, [{ from, until: from + length }], length);
      expect(frames.length).toBeLessThanOrEqual(1201);
      for (const [i, { at, on, added }] of frames.entries()) {
        const before = frames[i - 1];
        expect(at).toBeGreaterThan(before?.at ?? -1);
        if (added) expect([...(before?.on.marks ?? []), ...added.marks]).toEqual(on.marks);
      }
      for (const [i, s] of shown.entries()) {
        expect(s.until).toBeGreaterThanOrEqual(s.from);
        expect(s.from).toBeGreaterThan(shown[i - 1]?.until ?? -1);
        expect(s.until).toBeLessThanOrEqual(length);
      }
    }),
  );
});
