import { RichTextEditor } from '@mantine/tiptap';
import { useEditor, type JSONContent } from '@tiptap/react';
import { useEffect, useState } from 'react';
import type * as Y from 'yjs';
import { clockWords } from '@nimble-bell/core/calendar';
import { say } from '../../../app/notices';
import { SmallButton } from '../../../ui/SmallButton';
import { useInfo } from '../../live/useRoom';
import { notesExtensions, showWriters, type Writers } from './extensions';
import type { SharedDocument } from './shared';
import classes from './notes.module.css';

interface Props {
  shared: SharedDocument;
  writers: NonNullable<Writers>;
  close: () => void;
  /** Puts what was there in the place of what is; null where one may not. */
  putBack: ((content: JSONContent) => void) | null;
}

const NO_ANSWER = 'What was there before could not be had. Try again.';

/** The notes as they were, from moment to moment, each letter in its writer's colour. */
export function Earlier({ shared, writers, close, putBack }: Props) {
  const { zone } = useInfo();
  const [moments, setMoments] = useState<readonly number[] | null>(null);
  const [nr, setNr] = useState(0);
  const [doc, setDoc] = useState<{ at: number; doc: Y.Doc } | null>(null);
  const at = moments?.[nr];
  useEffect(() => {
    let gone = false;
    void shared.moments().then((all) => {
      if (gone) return;
      if (!all) return say(NO_ANSWER, 'fault');
      setMoments(all);
      setNr(Math.max(0, all.length - 1));
    });
    return () => void (gone = true);
  }, [shared]);
  useEffect(() => {
    if (at === undefined) return;
    let gone = false;
    void shared.until(at).then((then) => {
      if (gone) return;
      if (then) setDoc({ at, doc: then });
      else say(NO_ANSWER, 'fault');
    });
    return () => void (gone = true);
  }, [shared, at]);
  return (
    <div className={classes.notes} data-own-height>
      <div className={classes.earlier}>
        <div className={classes.closed} role="group" aria-label="As it was">
          {moments?.length === 0 && <span>Nothing has been changed yet.</span>}
          {at !== undefined && (
            <>
              <SmallButton disabled={nr === 0} onClick={() => setNr(nr - 1)}>
                Before
              </SmallButton>
              <span role="status" className="figures">
                Until {clockWords(at, zone)}
              </span>
              <SmallButton disabled={nr === moments!.length - 1} onClick={() => setNr(nr + 1)}>
                After
              </SmallButton>
            </>
          )}
          <SmallButton apart onClick={close} autoFocus>
            To what is there now
          </SmallButton>
        </div>
        {doc && (
          <Then
            key={doc.at}
            {...{ writers, close, putBack }}
            doc={doc.doc}
            until={clockWords(doc.at, zone)}
          />
        )}
      </div>
    </div>
  );
}

interface ThenProps extends Pick<Props, 'writers' | 'close' | 'putBack'> {
  doc: Y.Doc;
  until: string;
}

function Then({ doc, until, writers, close, putBack }: ThenProps) {
  const editor = useEditor({
    extensions: notesExtensions(doc, null),
    editable: false,
    editorProps: { attributes: { 'aria-label': `The notes until ${until}`, role: 'document' } },
  });
  useEffect(() => {
    if (editor) showWriters(editor, writers);
  }, [editor, writers]);
  if (editor?.isEmpty) return <p className={classes.quiet}>Nothing was written until {until}.</p>;
  return (
    <>
      <RichTextEditor editor={editor} classNames={{ root: classes.root!, content: classes.content! }}>
        <RichTextEditor.Content />
      </RichTextEditor>
      {putBack && editor && (
        <div className={classes.closed}>
          <SmallButton
            onClick={() => {
              putBack(editor.getJSON());
              close();
              say(`The notes are as they were until ${until}. Undo takes that back.`);
            }}
          >
            Put this back
          </SmallButton>
        </div>
      )}
    </>
  );
}
