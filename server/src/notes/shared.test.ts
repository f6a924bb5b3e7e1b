import fc from 'fast-check';
import * as Y from 'yjs';
import { takeUpdate, textOf } from './shared';

const kept: Buffer[] = [];
let bytes = 0;
jest.mock('./store', () => ({
  sizeOf: async () => ({ bytes, updates: kept.length }),
  addUpdate: async (_db: unknown, _of: unknown, _member: unknown, body: Buffer) => void kept.push(body),
}));
const OF = { session: 's', place: 'class', name: 'notes' };
const take = (update: Uint8Array) => takeUpdate({} as never, OF, 'ana', Buffer.from(update));

/** A page that writes; what it writes is in `sent`. */
function writer() {
  const doc = new Y.Doc();
  const sent: Uint8Array[] = [];
  doc.on('update', (u: Uint8Array, origin: unknown) => origin !== 'heard' && sent.push(u));
  const add = (text: string, name = 'paragraph') => {
    const element = new Y.XmlElement(name);
    element.insert(0, [new Y.XmlText(text)]);
    doc.getXmlFragment('default').push([element]);
  };
  return { doc, sent, add };
}

test('what is no change of the notes is not taken, nor more than they hold', async () => {
  const { sent, add } = writer();
  add('Ebb');
  await take(sent[0]!);
  expect(kept).toHaveLength(1);
  for (const odd of [[], [9], [255, 255, 255, 255, 255, 255], [1, 1, 1]])
    await expect(take(Uint8Array.from(odd))).rejects.toThrow('This is no change of the notes.');
  bytes = 5_000_000;
  await expect(take(sent[0]!)).rejects.toThrow('The notes are full.');
  expect(kept).toHaveLength(1);
});

test('notes read as lines: paragraphs, headings, lists', () => {
  const { doc, sent, add } = writer();
  add('Tides', 'heading');
  add('Springs and neaps');
  const list = new Y.XmlElement('bulletList');
  const item = new Y.XmlElement('listItem');
  const inside = new Y.XmlElement('paragraph');
  inside.insert(0, [new Y.XmlText('twice a month')]);
  item.insert(0, [inside]);
  list.insert(0, [item]);
  doc.getXmlFragment('default').push([list]);
  expect(textOf(sent)).toBe('Tides\nSprings and neaps\n– twice a month');
  expect(textOf([])).toBe('');
});

test('a hundred who write converge, in whatever order it comes, lost for a while or twice', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ by: fc.nat(99), text: fc.string({ minLength: 1, maxLength: 8 }) }), {
        minLength: 1,
        maxLength: 120,
      }),
      fc.infiniteStream(fc.nat(1000)),
      (words, chance) => {
        const writers = new Map<number, ReturnType<typeof writer>>();
        const all: Uint8Array[] = [];
        for (const { by, text } of words) {
          const one = writers.get(by) ?? writer();
          writers.set(by, one);
          // Each has heard some of the others' by then.
          for (const u of all) if (chance.next().value! % 3 === 0) Y.applyUpdate(one.doc, u, 'heard');
          const before = one.sent.length;
          one.add(text);
          all.push(...one.sent.slice(before));
        }
        const shuffled = [...all, ...all.slice(0, 5)]
          .map((u) => ({ u, at: chance.next().value! }))
          .sort((a, b) => a.at - b.at)
          .map(({ u }) => u);
        const stored = textOf(all);
        expect(textOf(shuffled)).toBe(stored);
        expect(textOf([Y.mergeUpdates(shuffled)])).toBe(stored);
        for (const text of words.map((w) => w.text.trim())) expect(stored).toContain(text);
      },
    ),
    { numRuns: 30 },
  );
});
