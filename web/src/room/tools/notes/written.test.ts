import { Editor } from '@tiptap/core';
import * as Y from 'yjs';
import { Hands } from '@nimble-bell/core/hands';
import type { Signal } from '@nimble-bell/core/api';
import { Carets } from './carets';
import { notesExtensions, runsOf, showWriters } from './extensions';
import { lettersOf } from './written';

/** Pages that write in one document, each with an editor; what one does, all others hear. */
function pages(count: number) {
  const all = Array.from({ length: count }, () => {
    const doc = new Y.Doc();
    return { doc, editor: new Editor({ extensions: notesExtensions(doc, null) }) };
  });
  for (const { doc } of all)
    doc.on('update', (update: Uint8Array, origin: unknown) => {
      if (origin !== 'heard')
        for (const other of all) if (other.doc !== doc) Y.applyUpdate(other.doc, update, 'heard');
    });
  return all;
}

test('by whom each letter is, is known at its place in the editor, through lists, breaks and what was taken away', () => {
  const [ana, ben] = pages(2) as [ReturnType<typeof pages>[0], ReturnType<typeof pages>[0]];
  ana.editor.commands.setContent(
    '<h2>Tides</h2><ul><li><p>springs</p></li></ul><p>one<br>two</p><hr><p>end</p>',
  );
  const { state } = ben.editor;
  let inList = 0;
  state.doc.descendants((node, at) => {
    if (node.isText && node.text === 'springs') inList = at;
  });
  ben.editor.commands.insertContentAt(inList + 6, ' and neap', {
    parseOptions: { preserveWhitespace: 'full' },
  });
  ana.editor.commands.deleteRange({ from: inList, to: inList + 1 });
  const { doc } = ana.editor.state;
  const hands = new Hands(
    [
      { client: ana.doc.clientID, member: 'ana' },
      { client: ben.doc.clientID, member: 'ben' },
    ],
    [],
  );
  const runs = runsOf(ana.editor, ana.doc, hands);
  const textBy = (member: string) =>
    runs.filter((r) => r.member === member).map((r) => doc.textBetween(r.from, r.to, '|'));
  expect(textBy('ben')).toEqual([' and neap']);
  expect(textBy('ana')).toEqual(['Tides', 'pring', 's', 'one', 'two', 'end']);
  expect(runsOf(ben.editor, ben.doc, hands)).toEqual(runs);
  expect(lettersOf(runs)).toEqual([
    { member: 'ana', letters: 20 },
    { member: 'ben', letters: 9 },
  ]);
});

test('letters are shown in their writer’s colour, by name, and no more once that is put off', async () => {
  const [ana, ben] = pages(2) as [ReturnType<typeof pages>[0], ReturnType<typeof pages>[0]];
  ana.editor.commands.setContent('<p>Ebb</p>');
  const shown = () =>
    [...ben.editor.view.dom.querySelectorAll('.nb-written')].map(
      (e) => `${e.getAttribute('title')}: ${e.textContent}`,
    );
  expect(shown()).toEqual([]);
  const hands = new Hands([{ client: ana.doc.clientID, member: 'Ana' }], []);
  showWriters(ben.editor, { hands, writer: (member) => ({ name: member ?? 'Ben', hand: 1 }) });
  expect(shown()).toEqual(['Ana: Ebb']);
  ben.editor.commands.insertContentAt(4, ' tide', { parseOptions: { preserveWhitespace: 'full' } });
  await Promise.resolve();
  expect(shown()).toEqual(['Ana: Ebb', 'Ben:  tide']);
  showWriters(ben.editor, null);
  expect(shown()).toEqual([]);
});

describe('carets', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  test('one’s own is told now and then, and once as gone; another’s stands by the name that the server gives', () => {
    const sent: Signal[] = [];
    let hear: (signal: Signal & { member: string }) => void = () => {};
    const doc = new Y.Doc();
    const line = {
      signal: (signal: Signal) => void sent.push(signal),
      onSignal: (listener: typeof hear) => ((hear = listener), () => true),
    };
    const carets = new Carets(line, doc, (member) => ({ name: member.toUpperCase(), hand: 2 }));
    const editor = new Editor({ extensions: notesExtensions(doc, carets) });
    editor.commands.setContent('<p>Ebb and flood</p>');
    const spot = (index: number) => {
      const text = (doc.getXmlFragment('default').get(0) as Y.XmlElement).get(0) as Y.XmlText;
      return JSON.parse(JSON.stringify(Y.createRelativePositionFromTypeIndex(text, index)));
    };
    const caret = () => editor.view.dom.querySelector('.nb-caret');
    hear({ what: 'caret', at: { anchor: spot(3), head: spot(3) }, member: 'ben' });
    jest.advanceTimersByTime(1);
    expect(caret()?.getAttribute('data-name')).toBe('BEN');
    expect(caret()?.getAttribute('data-hand')).toBe('2');
    // What leads nowhere is nowhere, and harms nothing.
    const odd = { item: { client: 5, clock: 9 }, type: null, tname: null, assoc: 0 };
    hear({ what: 'caret', at: { anchor: odd, head: odd }, member: 'cleo' });
    hear({ what: 'caret', at: { anchor: {}, head: {} }, member: 'dot' });
    hear({ what: 'caret', at: null, member: 'ben' });
    jest.advanceTimersByTime(1);
    expect(caret()).toBeNull();
    editor.destroy();
    const cursor = { anchor: spot(1), head: spot(4) };
    for (let i = 0; i < 5; i++) carets.awareness.setLocalStateField('cursor', cursor);
    jest.advanceTimersByTime(200);
    expect(sent).toEqual([{ what: 'caret', at: cursor }]);
    carets.close();
    expect(sent.at(-1)).toEqual({ what: 'caret', at: null });
  });
});
