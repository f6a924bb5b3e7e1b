import { RichTextEditor } from '@mantine/tiptap';
import '@mantine/tiptap/styles.css';
import { useEditor } from '@tiptap/react';
import { useEffect, useState, type ReactNode } from 'react';
import { CLASS, ownerOf, placeOf } from '@nimble-bell/core/room';
import { SmallButton } from '../../../ui/SmallButton';
import { useRefusal } from '../../controls/useRefusal';
import { useInside, useMay, useTeaching, type Inside } from '../../live/useRoom';
import { Earlier } from './Earlier';
import { notesExtensions, showWriters } from './extensions';
import { HandsList } from './HandsList';
import { useOpened, useWriters, type Opened } from './useOpened';
import classes from './notes.module.css';

/** Where one is; or what was made at a table, while the class looks at it. Somebody's own board has no notes. */
const selectPlace = ({ room, info }: Inside) => {
  const place = placeOf(room, info.me.member);
  const { shown } = room.board;
  return place === CLASS && shown && ownerOf(shown.from) === null
    ? { place: shown.from, of: shown.title }
    : { place, of: null };
};

export default function NotesEditor() {
  const { place, of } = useInside(selectPlace);
  const opened = useOpened(place);
  if (!opened || opened.shared.of.place !== place)
    return <p className={classes.quiet}>Opening the notes …</p>;
  return <Editing key={opened.shared.doc.guid} opened={opened} of={of} />;
}

/** `of`: whose notes are read, where they are not one's own. */
function Editing({ opened: { shared, carets }, of }: { opened: Opened; of: string | null }) {
  const allowed = useMay('writeNotes').allowed && of === null;
  const closed = useRefusal('writeNotes');
  const teaching = useTeaching();
  const writers = useWriters(shared);
  const [named, setNamed] = useState(false);
  const [before, setBefore] = useState(false);
  const editor = useEditor({
    extensions: notesExtensions(shared.doc, carets),
    editable: allowed,
    editorProps: {
      // Focused where nothing can be written either: what is typed there is no key of the room's.
      attributes: {
        ...{ 'aria-label': 'The class notes', role: 'textbox', 'aria-multiline': 'true' },
        ...{ tabindex: '0', 'aria-readonly': String(!allowed) },
      },
    },
  });
  useEffect(() => editor?.setEditable(allowed), [editor, allowed]);
  useEffect(() => {
    if (editor) showWriters(editor, named ? writers : null);
  }, [editor, named, writers]);
  const looks = (
    <div className={classes.looks}>
      <SmallButton aria-pressed={named} apart={named} onClick={() => setNamed(!named)}>
        Who wrote what
      </SmallButton>
      {teaching && <SmallButton onClick={() => setBefore(true)}>As it was</SmallButton>}
    </div>
  );
  if (before && editor)
    return (
      <Earlier
        {...{ shared, writers }}
        close={() => setBefore(false)}
        putBack={allowed ? (content) => editor.commands.setContent(content) : null}
      />
    );
  return (
    <div className={classes.notes} data-own-height>
      <RichTextEditor editor={editor} classNames={{ root: classes.root!, content: classes.content! }}>
        {allowed ? (
          <Toolbar>{looks}</Toolbar>
        ) : (
          <div className={classes.closed}>
            <span>{of === null ? closed : `The notes of ${of}.`}</span>
            {looks}
          </div>
        )}
        {named && editor && <HandsList {...{ editor, writers }} doc={shared.doc} />}
        <RichTextEditor.Content />
      </RichTextEditor>
    </div>
  );
}

const Toolbar = ({ children }: { children: ReactNode }) => (
  <RichTextEditor.Toolbar>
    <RichTextEditor.ControlsGroup>
      <RichTextEditor.H2 />
      <RichTextEditor.H3 />
    </RichTextEditor.ControlsGroup>
    <RichTextEditor.ControlsGroup>
      <RichTextEditor.Bold />
      <RichTextEditor.Italic />
      <RichTextEditor.BulletList />
      <RichTextEditor.OrderedList />
    </RichTextEditor.ControlsGroup>
    <RichTextEditor.ControlsGroup>
      <RichTextEditor.Undo />
      <RichTextEditor.Redo />
    </RichTextEditor.ControlsGroup>
    {children}
  </RichTextEditor.Toolbar>
);
