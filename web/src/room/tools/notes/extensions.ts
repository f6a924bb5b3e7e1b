import { Extension, type Editor } from '@tiptap/core';
import Collaboration from '@tiptap/extension-collaboration';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import StarterKit from '@tiptap/starter-kit';
import { yCursorPlugin } from '@tiptap/y-tiptap';
import type { Hands } from '@nimble-bell/core/hands';
import type * as Y from 'yjs';
import { caretOf, chosenBy, type Carets, type Writer } from './carets';
import { writtenIn, type Run } from './written';

/** Who wrote what, and who that is; null while it is not shown. */
export type Writers = { hands: Hands; writer: (member: string | null) => Writer } | null;

interface Shown {
  writers: Writers;
  letters: DecorationSet;
}
const KEY = new PluginKey<Shown>('writers');

/** Shows by whom each letter was written, or does no more. */
export const showWriters = ({ view }: Editor, writers: Writers) =>
  view.dispatch(view.state.tr.setMeta(KEY, writers).setMeta('addToHistory', false));

/** By whom each letter of an editor's document is. */
export const runsOf = (editor: Editor, doc: Y.Doc, hands: Hands): Run[] =>
  writtenIn(doc.getXmlFragment('default'), hands, (name) => editor.schema.nodes[name]?.isLeaf ?? false);

const lettersIn = (
  node: Node,
  runs: readonly Run[],
  { writer }: Pick<NonNullable<Writers>, 'writer'>,
): DecorationSet =>
  DecorationSet.create(
    node,
    runs
      .filter((run) => run.to <= node.content.size)
      .map(({ from, to, member }) => {
        const { name, hand } = writer(member);
        return Decoration.inline(from, to, { class: 'nb-written', 'data-hand': String(hand), title: name });
      }),
  );

const writersOf = (doc: Y.Doc) =>
  Extension.create({
    name: 'writers',
    addProseMirrorPlugins() {
      const { editor } = this;
      return [
        new Plugin<Shown>({
          key: KEY,
          state: {
            init: () => ({ writers: null, letters: DecorationSet.empty }),
            apply: (tr, { writers: before, letters }) => {
              const told = tr.getMeta(KEY) as Writers | undefined;
              if (told === undefined) return { writers: before, letters: letters.map(tr.mapping, tr.doc) };
              return {
                writers: told,
                letters: told
                  ? lettersIn(tr.doc, runsOf(editor, doc, told.hands), told)
                  : DecorationSet.empty,
              };
            },
          },
          props: { decorations: (state) => KEY.getState(state)!.letters },
          // What is typed is in the document a moment after it is in the editor: then it is somebody's.
          view: (view) => {
            let gone = false;
            const again = () =>
              queueMicrotask(() => {
                const writers = gone ? null : KEY.getState(view.state)?.writers;
                if (writers) showWriters(editor, writers);
              });
            doc.on('update', again);
            return {
              destroy: () => {
                gone = true;
                doc.off('update', again);
              },
            };
          },
        }),
      ];
    },
  });

const caretsOf = ({ awareness }: Carets) =>
  Extension.create({
    name: 'carets',
    addProseMirrorPlugins: () => [
      yCursorPlugin(awareness, { cursorBuilder: caretOf, selectionBuilder: chosenBy }),
    ],
  });

/** What an editor of notes is made of; with the others' carets, where one writes with them. */
export const notesExtensions = (document: Y.Doc, carets: Carets | null) => [
  StarterKit.configure({ undoRedo: false }),
  Collaboration.configure({ document }),
  writersOf(document),
  ...(carets ? [caretsOf(carets)] : []),
];
