import * as Y from 'yjs';
import { SharedDocument } from './shared';

type Change = { place: string; name: string; update: string; hands: []; moved: [] };
const OF = { place: 'class', name: 'notes' };

/** A server of plain memory, and the lines to it; a line can be away, and the next change be answered otherwise. */
function server() {
  const updates: string[] = [];
  const lines: { heard: Set<(c: Change) => void>; told: Set<() => void>; view: { status: string } }[] = [];
  let next: { code: string; message: string } | null = null;
  const line = () => {
    const own = {
      heard: new Set<(c: Change) => void>(),
      told: new Set<() => void>(),
      view: { status: 'in' },
    };
    lines.push(own);
    return {
      own,
      view: own.view,
      subscribe: (l: () => void) => (own.told.add(l), () => own.told.delete(l)),
      onDocument: (l: (c: Change) => void) => (own.heard.add(l), () => own.heard.delete(l)),
      ask: async (name: string, body: Change) => {
        if (own.view.status !== 'in') return null;
        if (name === 'documentOpen') return { ok: true, updates: [...updates], hands: [], moved: [] };
        if (next) {
          const refusal = next;
          next = null;
          return { ok: false, refusal };
        }
        updates.push(body.update);
        for (const other of lines)
          if (other !== own && other.view.status === 'in')
            for (const l of other.heard) l({ ...body, hands: [], moved: [] });
        return { ok: true, hands: [], moved: [] };
      },
      goes(status: string) {
        own.view.status = status;
        for (const l of own.told) l();
      },
    };
  };
  return { updates, line, refuse: (code: string) => (next = { code, message: 'No.' }) };
}

const pages: SharedDocument[] = [];
afterEach(() => pages.splice(0).forEach((p) => p.close()));
const page = async (
  line: ReturnType<ReturnType<typeof server>['line']>,
  refused: (why: string) => void = () => {},
) => {
  const shared = await new Promise<SharedDocument>((resolve) => {
    const made: SharedDocument = new SharedDocument(line as never, OF, refused, () => resolve(made));
    pages.push(made);
  });
  return { shared, text: shared.doc.getText('t') };
};
const settle = (ms = 700) => new Promise((resolve) => setTimeout(resolve, ms));

test('what is typed within a moment goes together, to all; who comes later has it', async () => {
  const { line, updates } = server();
  const [one, other] = [await page(line()), await page(line())];
  for (const letter of 'Ebb') one.text.insert(one.text.length, letter);
  await settle();
  expect(updates).toHaveLength(1);
  expect(other.text.toJSON()).toBe('Ebb');
  expect((await page(line())).text.toJSON()).toBe('Ebb');
});

test('what was typed while the line was away comes with it, and what the others wrote meanwhile', async () => {
  const { line } = server();
  const own = line();
  const [one, other] = [await page(own), await page(line())];
  own.goes('away');
  one.text.insert(0, 'Neaps. ');
  other.text.insert(0, 'Springs. ');
  await settle();
  expect(other.text.toJSON()).toBe('Springs. ');
  own.goes('in');
  await settle();
  expect(one.text.toJSON()).toBe(other.text.toJSON());
  expect([...one.text.toJSON().split('. ')].sort()).toEqual(['', 'Neaps', 'Springs']);
});

test('what passes is sent again; what is refused is said, once', async () => {
  const { line, refuse, updates } = server();
  const why: string[] = [];
  const { text } = await page(line(), (w) => why.push(w));
  refuse('too-many');
  text.insert(0, 'Ebb');
  await settle(1900);
  expect([updates.length, why]).toEqual([1, []]);
  refuse('closed');
  text.insert(0, 'Flood');
  await settle();
  expect([updates.length, why]).toEqual([1, ['No.']]);
  const doc = new Y.Doc();
  for (const u of updates)
    Y.applyUpdate(
      doc,
      Uint8Array.from(atob(u), (c) => c.charCodeAt(0)),
    );
  expect(doc.getText('t').toJSON()).toBe('Ebb');
});
