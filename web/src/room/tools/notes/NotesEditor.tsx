import { RichTextEditor } from '@mantine/tiptap';
import '@mantine/tiptap/styles.css';
import Collaboration from '@tiptap/extension-collaboration';
import { useEditor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { useEffect, useState } from 'react';
import { CLASS, placeOf } from '@nimble-bell/core/room';
import { say } from '../../../app/notices';
import { useRefusal } from '../../controls/useRefusal';
import { useInside, useMay, useRoom, type Inside } from '../../live/useRoom';
import { SharedDocument } from './shared';
import classes from './notes.module.css';

/** Where one is; or what was made at a table, while the class looks at it. */
const selectPlace = ({ room, info }: Inside) => {
  const place = placeOf(room, info.me.member);
  const { shown } = room.board;
  return place === CLASS && shown ? { place: shown.from, of: shown.title } : { place, of: null };
};

/** The document of this place, once it is here. What was refused is let go: one has again what the others have. */
function useShared(place: string): SharedDocument | null {
  const { connection } = useRoom();
  const [anew, setAnew] = useState(0);
  const [opened, setOpened] = useState<SharedDocument | null>(null);
  useEffect(() => {
    const shared = new SharedDocument(
      connection,
      { place, name: 'notes' },
      (why) => {
        say(why, 'fault');
        setAnew((n) => n + 1);
      },
      () => setOpened(shared),
    );
    return () => shared.close();
  }, [connection, place, anew]);
  return opened;
}

export default function NotesEditor() {
  const { place, of } = useInside(selectPlace);
  const shared = useShared(place);
  if (!shared || shared.of.place !== place) return <p className={classes.quiet}>Opening the notes …</p>;
  return <Editing key={shared.doc.guid} shared={shared} of={of} />;
}

/** `of`: whose notes are read, where they are not one's own. */
function Editing({ shared, of }: { shared: SharedDocument; of: string | null }) {
  const allowed = useMay('writeNotes').allowed && of === null;
  const closed = useRefusal('writeNotes');
  const refusal = of === null ? closed : `The notes of ${of}.`;
  const editor = useEditor({
    extensions: [
      StarterKit.configure({ undoRedo: false }),
      Collaboration.configure({ document: shared.doc }),
    ],
    editable: allowed,
    editorProps: {
      attributes: { 'aria-label': 'The class notes', role: 'textbox', 'aria-multiline': 'true' },
    },
  });
  useEffect(() => editor?.setEditable(allowed), [editor, allowed]);
  return (
    <div className={classes.notes} data-own-height>
      <RichTextEditor editor={editor} classNames={{ root: classes.root!, content: classes.content! }}>
        {allowed ? (
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
          </RichTextEditor.Toolbar>
        ) : (
          <p className={classes.closed}>{refusal}</p>
        )}
        <RichTextEditor.Content />
      </RichTextEditor>
    </div>
  );
}
