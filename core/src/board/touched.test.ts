import fc from 'fast-check';
import { keptOn, moved, pointsOf, type Mark } from '../room/index';
import { boxOf, isTouched, marksWithin, touchedAt } from './touched';
import { groundPath, shapePath } from './shapes';

const of = { by: 'ana', place: 'class', side: 1, colour: 'ink' as const };
const stroke = (seq: number, points: number[]): Mark => ({ ...of, kind: 'stroke', seq, points });
const shape = (seq: number, kind: 'line' | 'arrow' | 'box' | 'oval'): Mark => ({
  ...{ ...of, kind: 'shape', seq, shape: kind },
  ...{ from: [0.2, 0.2] as [number, number], to: [0.6, 0.8] as [number, number] },
});
const text: Mark = { ...of, kind: 'text', seq: 9, text: 'High water', at: [0.1, 0.5] };

test('a line is touched along it, and not beside it; a dot where it is', () => {
  const line = stroke(1, [0.1, 0.1, 0.5, 0.1]);
  expect(isTouched(line, [0.3, 0.11])).toBe(true);
  expect(isTouched(line, [0.3, 0.2])).toBe(false);
  expect(isTouched(line, [0.6, 0.1])).toBe(false);
  expect(isTouched(stroke(2, [0.4, 0.4]), [0.405, 0.4])).toBe(true);
});

test('a box and an oval are touched at their edge, and what is in them can be touched too', () => {
  for (const kind of ['box', 'oval'] as const) {
    expect([kind, isTouched(shape(1, kind), [0.2, 0.5])]).toEqual([kind, true]);
    expect([kind, isTouched(shape(1, kind), [0.4, 0.5])]).toEqual([kind, false]);
  }
  // The corner of its box is not on the oval.
  expect(isTouched(shape(1, 'box'), [0.6, 0.8])).toBe(true);
  expect(isTouched(shape(1, 'oval'), [0.6, 0.8])).toBe(false);
  expect(isTouched(shape(1, 'arrow'), [0.4, 0.5])).toBe(true);
});

test('words are touched anywhere on them, and the mark on top is meant', () => {
  const box = boxOf(text);
  expect(box.right - box.left).toBeGreaterThan(100);
  expect(isTouched(text, [0.15, 0.48])).toBe(true);
  const under = stroke(1, [0.1, 0.48, 0.4, 0.48]);
  expect(touchedAt([under, text], [0.15, 0.48])).toBe(text);
  expect(touchedAt([text, under], [0.15, 0.48])).toBe(under);
  expect(touchedAt([under, text], [0.9, 0.9])).toBeNull();
});

test('a frame takes up what lies wholly in it, drawn from whichever corner', () => {
  const marks = [stroke(1, [0.1, 0.1, 0.2, 0.2]), shape(2, 'box'), text];
  expect(marksWithin(marks, [0.3, 0.3], [0, 0]).map((m) => m.seq)).toEqual([1]);
  expect(marksWithin(marks, [0, 0], [1, 1]).map((m) => m.seq)).toEqual([1, 2, 9]);
});

test('a figure is a path of its own kind, with its head where it points', () => {
  const d = (kind: 'line' | 'arrow' | 'box' | 'oval') =>
    shapePath(shape(1, kind) as Extract<Mark, { kind: 'shape' }>);
  expect(d('line')).toBe('M320.0 180.0L960.0 720.0');
  expect(d('arrow').match(/M960\.0 720\.0L/g)).toHaveLength(2);
  expect(d('box')).toBe('M320.0 180.0H960.0V720.0H320.0Z');
  expect(d('oval')).toMatch(/^M320\.0 450\.0a320\.0 270\.0 /);
});

test('a ground is ruled from edge to edge, and a plain one not at all', () => {
  expect(groundPath('plain')).toBe('');
  expect(groundPath('ruled').match(/H1600/g)).toHaveLength(11);
  expect(groundPath('squared').match(/V900/g)).toHaveLength(31);
  expect(groundPath('axes')).toContain('M0 450H1600');
});

const share = fc.integer({ min: 0, max: 10_000 }).map((n) => n / 10_000);
const anyMark = fc.oneof(
  fc
    .array(share, { minLength: 2, maxLength: 12 })
    .map((p) => stroke(1, p.slice(0, p.length - (p.length % 2)))),
  fc
    .tuple(share, share, share, share)
    .map(([a, b, c, d]): Mark => ({ ...of, kind: 'shape', seq: 2, shape: 'oval', from: [a, b], to: [c, d] })),
  fc.tuple(share, share).map((at): Mark => ({ ...of, kind: 'text', seq: 3, text: 'Ebb', at })),
);
const shift = fc.integer({ min: -10_000, max: 10_000 }).map((n) => n / 10_000);

test('moved together, marks keep their distance, stay on the board, and can be moved back', () => {
  fc.assert(
    fc.property(fc.array(anyMark, { minLength: 1, maxLength: 5 }), shift, shift, (marks, x, y) => {
      const by = keptOn(marks, x, y);
      const there = marks.map((m) => moved(m, by.x, by.y));
      for (const n of there.flatMap(pointsOf)) expect(n >= 0 && n <= 1).toBe(true);
      const back = there.map((m) => moved(m, -by.x, -by.y));
      const all = (of: readonly Mark[]) => of.flatMap((m) => [...pointsOf(m)]);
      all(back).forEach((n, i) => expect(n).toBeCloseTo(all(marks)[i]!, 3));
    }),
  );
});
