import fc from 'fast-check';
import * as Y from 'yjs';
import { Hands, type Moved } from '@nimble-bell/core/hands';
import { docOf, lettersBy, textOf } from './read';
import { forgetCounts } from './remembered';
import { documentThen, textAt, openDocument, takeUpdate } from './shared';

const kept: Buffer[] = [];
const hands = new Map<number, string>();
const moved: Moved[] = [];
const moments: { at: number; body: Buffer }[] = [];
let bytes = 0;
jest.mock('../db/pool', () => ({ transaction: (db: unknown, work: (db: unknown) => unknown) => work(db) }));
jest.mock('./store', () => {
  const all = () => [...hands].map(([client, member]) => ({ client, member }));
  return {
    sizeOf: async () => ({ bytes, updates: kept.length, noted: moments.at(-1)?.at ?? null }),
    updatesOf: async () => kept,
    addUpdate: async (_db: unknown, _of: unknown, _member: unknown, body: Buffer) => void kept.push(body),
    handsOf: async () => all(),
    handsAmong: async (_db: unknown, _of: unknown, clients: number[]) =>
      all().filter((h) => clients.includes(h.client)),
    addHands: async (_db: unknown, _of: unknown, member: string, clients: number[]) => {
      for (const c of clients) if (!hands.has(c)) hands.set(c, member);
    },
    addMoment: async (_db: unknown, _of: unknown, at: number, body: Buffer) =>
      void moments.push({ at, body }),
    movedOf: async () => moved,
    addMoved: async (_db: unknown, _of: unknown, more: Moved[]) => void moved.push(...more),
    momentsOf: async () => moments.map((m) => m.at),
    momentAfter: async (_db: unknown, _of: unknown, at: number) => moments.find((m) => m.at >= at) ?? null,
  };
});
beforeEach(() => {
  // Another document each time: what is remembered of one is not of the next.
  OF.session = `s${session++}`;
  for (const list of [kept, moments, moved]) list.length = 0;
  hands.clear();
  bytes = 0;
});
let session = 0;
const OF = { session: 's', place: 'class', name: 'notes' };
const take = (update: Uint8Array, by = 'ana', now = 0) =>
  takeUpdate({} as never, OF, by, Buffer.from(update), now);
const textIn = (updates: readonly Uint8Array[]) => textOf(docOf(updates));

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
  forgetCounts(OF);
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
  expect(textIn(sent)).toBe('Tides\nSprings and neaps\n– twice a month');
  expect(textIn([])).toBe('');
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
        const stored = textIn(all);
        expect(textIn(shuffled)).toBe(stored);
        expect(textIn([Y.mergeUpdates(shuffled)])).toBe(stored);
        for (const text of words.map((w) => w.text.trim())) expect(stored).toContain(text);
      },
    ),
    { numRuns: 30 },
  );
});

test('whose hand a letter is by is known, and nobody writes in another’s', async () => {
  const [ana, ben] = [writer(), writer()];
  ana.add('Ebb');
  expect(await take(ana.sent[0]!)).toEqual({
    hands: [{ client: ana.doc.clientID, member: 'ana' }],
    moved: [],
  });
  Y.applyUpdate(ben.doc, ana.sent[0]!, 'heard');
  ben.add('Springs');
  await take(ben.sent[0]!, 'ben');
  ben.add('and neaps');
  expect(await take(ben.sent[1]!, 'ben')).toEqual({ hands: [], moved: [] });
  expect((await openDocument({} as never, OF)).hands).toEqual([
    { client: ana.doc.clientID, member: 'ana' },
    { client: ben.doc.clientID, member: 'ben' },
  ]);
  const letters = async () => {
    const { hands: all, moved: put } = await openDocument({} as never, OF);
    return Object.fromEntries(lettersBy(docOf(kept), new Hands(all, put)));
  };
  expect(await letters()).toEqual({ ana: 3, ben: 16 });
  // By a script: words of ana's page, sent by ben. What was there may be taken away by anybody.
  ana.add('I never wrote this');
  await expect(take(ana.sent.at(-1)!, 'ben')).rejects.toThrow('This was written by somebody else.');
  ben.doc.getXmlFragment('default').delete(0, 1);
  await take(ben.sent.at(-1)!, 'ben');
  expect(textIn(kept)).toBe('Springs\nand neaps');
  // A break in ben's paragraph by ana's page takes its end away and puts it anew: it stays his.
  await take(ana.sent.at(-1)!);
  for (const update of ben.sent) Y.applyUpdate(ana.doc, update, 'heard');
  ana.doc.transact(() => {
    const all = ana.doc.getXmlFragment('default').toArray() as Y.XmlElement[];
    const text = all.map((e) => e.get(0) as Y.XmlText).find((t) => String(t) === 'and neaps')!;
    text.delete(4, 5);
    ana.add('neaps!');
  });
  const known = await take(ana.sent.at(-1)!);
  expect(known.moved).toMatchObject([{ client: ana.doc.clientID, length: 5, member: 'ben' }]);
  expect(await letters()).toEqual({ ana: 'I never wrote this!'.length, ben: 16 });
});

test('how it was is kept from minute to minute, and before much is taken away', async () => {
  const { doc, sent, add } = writer();
  const write = async (now: number, work: () => void) => {
    const from = sent.length;
    work();
    for (const update of sent.slice(from)) await take(update, 'ana', now);
  };
  const MIN = 60_000;
  await write(0, () => add('Ebb first'));
  await write(5000, () => add('then slack'));
  await write(2 * MIN, () => add('x'.repeat(120)));
  await write(2 * MIN + 1000, () => add('Flood'));
  // A minute has not gone by: what stood there is kept all the same, since much of it goes.
  await write(2 * MIN + 7000, () => doc.getXmlFragment('default').delete(0, 4));
  await write(9 * MIN, () => add('Anew'));
  const pool = {} as never;
  const at = (when: number) => textAt(pool, OF, when, false);
  expect(await at(0)).toBe('');
  expect(await at(MIN)).toBe('Ebb first\nthen slack');
  expect(await at(2 * MIN + 3000)).toBe(`Ebb first\nthen slack\n${'x'.repeat(120)}\nFlood`);
  expect(await at(5 * MIN)).toBe('');
  // Of the same, what nobody has taken away since.
  const keptAt = (when: number) => textAt(pool, OF, when, true);
  expect([await keptAt(2 * MIN + 3000), await keptAt(10 * MIN)]).toEqual(['', 'Anew']);
  expect(await at(10 * MIN)).toBe('Anew');
  const { moments: known } = await documentThen(pool, OF, null);
  expect(known).toEqual([0, 2 * MIN, 2 * MIN + 7000, 9 * MIN]);
  const { updates } = await documentThen(pool, OF, 2 * MIN);
  expect(textIn(updates.map((u) => Buffer.from(u, 'base64')))).toBe('Ebb first\nthen slack');
});
