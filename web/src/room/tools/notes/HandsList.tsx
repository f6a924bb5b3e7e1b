import { useEditorState, type Editor } from '@tiptap/react';
import type * as Y from 'yjs';
import { countWords } from '@nimble-bell/core/calendar';
import type { Writer } from './carets';
import { runsOf, type Writers } from './extensions';
import { lettersOf } from './written';
import classes from './notes.module.css';

interface Props {
  editor: Editor;
  doc: Y.Doc;
  writers: NonNullable<Writers>;
}

/** Who wrote in it, the most first, each in the colour in which their letters are. */
export function HandsList({ editor, doc, writers: { hands, writer } }: Props) {
  const letters = useEditorState({
    editor,
    selector: ({ editor: now }) => JSON.stringify(lettersOf(runsOf(now, doc, hands))),
  });
  const by: (Writer & { letters: number; member: string | null })[] = (
    JSON.parse(letters) as ReturnType<typeof lettersOf>
  ).map((one) => ({ ...one, ...writer(one.member) }));
  return (
    <ul className={classes.hands} aria-label="Who wrote it">
      {by.map(({ member, name, hand, letters: n }) => (
        <li key={member} className="nb-written" data-hand={hand}>
          <bdi>{name}</bdi>, {countWords(n, 'letter')}
        </li>
      ))}
      {by.length === 0 && <li>Nobody has written anything yet.</li>}
    </ul>
  );
}
