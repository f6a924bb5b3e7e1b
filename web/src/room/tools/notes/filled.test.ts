import { Editor } from '@tiptap/core';
import fc from 'fast-check';
import * as Y from 'yjs';
import { many } from '@nimble-bell/core/testing';
import { notesExtensions } from './extensions';
import { fillsBlocks } from './filled';

/** Pages that write in one document; what each does reaches the others when they are told. */
function pages(count: number) {
  return Array.from({ length: count }, () => {
    const doc = new Y.Doc();
    fillsBlocks(doc);
    const sent: Uint8Array[] = [];
    doc.on('update', (update: Uint8Array, origin: unknown) => void (origin !== 'heard' && sent.push(update)));
    return { doc, sent, editor: new Editor({ extensions: notesExtensions(doc, null) }) };
  });
}
type Page = ReturnType<typeof pages>[0];

function tellAll(all: readonly Page[]) {
  for (const { sent, doc } of all)
    for (const update of sent.splice(0))
      for (const other of all) if (other.doc !== doc) Y.applyUpdate(other.doc, update, 'heard');
}
const lettersIn = ({ editor }: Page) => [...editor.getText({ blockSeparator: '' })].sort().join('');

test('who begins to write in the same empty line loses nothing: not a letter, whenever it reaches the others', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ by: fc.nat(2), what: fc.constantFrom('type', 'type', 'type', 'break', 'tell') }), {
        maxLength: 40,
      }),
      (steps) => {
        const all = pages(3);
        all[0]!.editor.commands.setContent('<p>Tides</p><p></p>');
        tellAll(all);
        for (const { editor } of all) editor.commands.focus('end');
        let typed = '';
        const seen = all.map(() => 0);
        for (const { by, what } of steps) {
          const { editor } = all[by]!;
          if (what === 'tell') tellAll(all);
          if (what === 'break') editor.commands.splitBlock();
          if (what !== 'type') continue;
          const letter = String.fromCharCode(97 + by * 8 + (seen[by]!++ % 8));
          typed += letter;
          editor.view.dispatch(editor.state.tr.insertText(letter));
        }
        tellAll(all);
        const wanted = [...`Tides${typed}`].sort().join('');
        for (const page of all) expect(lettersIn(page)).toBe(wanted);
        for (const { editor } of all) editor.destroy();
      },
    ),
    { numRuns: many(300) },
  );
});
