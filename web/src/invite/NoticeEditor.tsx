import { Button, Checkbox, Group, Stack, TextInput } from '@mantine/core';
import { DateInput, DateTimePicker } from '@mantine/dates';
import { RichTextEditor } from '@mantine/tiptap';
import '@mantine/tiptap/styles.css';
import { Editor, Node } from '@tiptap/core';
import { NodeSelection, Plugin, TextSelection } from '@tiptap/pm/state';
import { useEditor, type JSONContent } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { useState } from 'react';
import type { NoticeInfo, NoticeNode } from '@nimble-bell/core/api';
import { dateIn, dateWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { serverNow } from '../app/clock';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { shortDay } from '../app/styledFields';
import { Panel } from '../ui/Panel';
import { instantOf, pickedOf } from './picked';
import type { UseMutationResult } from '@tanstack/react-query';

/** A block that stands for a day of the plan: its sessions and files are filled in when it is read. */
const DayPlanNode = Node.create({
  name: 'dayPlan',
  group: 'block',
  atom: true,
  addAttributes: () => ({ date: { default: '' } }),
  // Where the block itself is chosen, what is typed goes after it: it is not typed away.
  addProseMirrorPlugins: () => [
    new Plugin({
      props: {
        handleTextInput: (view, _from, _to, text) => {
          const { selection, schema } = view.state;
          if (!(selection instanceof NodeSelection) || selection.node.type.name !== 'dayPlan') return false;
          const paragraph = schema.nodes.paragraph!.create(null, schema.text(text));
          const change = view.state.tr.insert(selection.to, paragraph);
          const end = selection.to + paragraph.nodeSize - 1;
          view.dispatch(change.setSelection(TextSelection.create(change.doc, end)));
          return true;
        },
      },
    }),
  ],
  parseHTML: () => [{ tag: 'div[data-day-plan]' }],
  renderHTML: ({ node }) => [
    'div',
    {
      'data-day-plan': '',
      style: 'border-left:4px solid var(--brass);background:var(--paper);padding:6px 12px;margin:8px 0',
    },
    `The plan of ${node.attrs.date ? dateWords(String(node.attrs.date)) : 'a day'}: sessions, times and files, filled in for each reader`,
  ],
});

const EMPTY: NoticeNode = { type: 'doc', content: [{ type: 'paragraph' }] };

export default function NoticeEditor({ notice, done }: { notice: NoticeInfo | null; done: () => void }) {
  const course = useThisCourse();
  const ask = useAsk();
  const { zone } = course.term;
  const [title, setTitle] = useState(notice?.title ?? '');
  const [from, setFrom] = useState(pickedOf(notice?.from ?? null, zone));
  const [until, setUntil] = useState(pickedOf(notice?.until ?? null, zone));
  const [pinned, setPinned] = useState(notice?.pinned ?? false);
  const [mail, setMail] = useState(false);
  const editor = useText(notice);
  const save = useChange(
    () =>
      ask<{ mailed?: number }>(
        `/courses/${course.id}/notices${notice ? `/${notice.id}` : ''}`,
        notice ? 'PUT' : 'POST',
        {
          title,
          body: editor!.getJSON(),
          from: from ? instantOf(from, zone) : null,
          until: until ? instantOf(until, zone) : null,
          pinned,
          mail,
        },
      ),
    () => (notice ? 'The notice is changed.' : 'The notice is on the board.'),
  );
  return (
    <Panel title={notice ? 'Change the notice' : 'A new notice'}>
      <Stack gap="sm">
        <TextInput
          label="Title"
          autoFocus
          value={title}
          maxLength={120}
          onChange={(e) => setTitle(e.currentTarget.value)}
        />
        <Writing zone={zone} editor={editor} />
        <Seen
          from={from}
          setFrom={setFrom}
          until={until}
          setUntil={setUntil}
          pinned={pinned}
          setPinned={setPinned}
          notice={notice}
          mail={mail}
          setMail={setMail}
        />
        <Ending done={done} title={title} save={save} notice={notice} mail={mail} />
      </Stack>
    </Panel>
  );
}

/** The text, into which a day's plan can be put. */
function Writing({ zone, editor }: { zone: string; editor: Editor }) {
  const [day, setDay] = useState<string | null>(dateIn(zone, serverNow()));
  return (
    <RichTextEditor editor={editor} variant="subtle">
      <RichTextEditor.Toolbar>
        <RichTextEditor.ControlsGroup>
          <RichTextEditor.Bold />
          <RichTextEditor.Italic />
          <RichTextEditor.H3 />
          <RichTextEditor.BulletList />
          <RichTextEditor.OrderedList />
        </RichTextEditor.ControlsGroup>
        <RichTextEditor.ControlsGroup>
          <RichTextEditor.Link />
          <RichTextEditor.Unlink />
        </RichTextEditor.ControlsGroup>
        <RichTextEditor.ControlsGroup>
          <RichTextEditor.Undo />
          <RichTextEditor.Redo />
        </RichTextEditor.ControlsGroup>
        <Group gap={6}>
          <DateInput
            aria-label="Day of the plan"
            size="xs"
            w={130}
            valueFormat={`ddd ${shortDay()}`}
            value={day}
            onChange={setDay}
          />
          <Button
            size="compact-sm"
            variant="default"
            disabled={!day}
            onClick={() =>
              editor
                ?.chain()
                .focus()
                .insertContent([{ type: 'dayPlan', attrs: { date: day } }, { type: 'paragraph' }])
                .run()
            }
          >
            Put in that day&apos;s plan
          </Button>
        </Group>
      </RichTextEditor.Toolbar>
      <RichTextEditor.Content />
    </RichTextEditor>
  );
}

interface SeenProps {
  from: string | null;
  setFrom: (value: string | null) => void;
  until: string | null;
  setUntil: (value: string | null) => void;
  pinned: boolean;
  setPinned: (value: boolean) => void;
  notice: NoticeInfo | null;
  mail: boolean;
  setMail: (value: boolean) => void;
}

/** From when and until when it is seen, and how. */
function Seen(props: SeenProps) {
  const { from, setFrom, until, setUntil, pinned, setPinned, notice, mail, setMail } = props;
  return (
    <Group align="flex-end">
      <DateTimePicker
        label="Seen from"
        placeholder="Now"
        clearable
        miw={180}
        value={from}
        onChange={setFrom}
      />
      <DateTimePicker
        label="Until"
        placeholder="Always"
        clearable
        miw={180}
        value={until}
        onChange={setUntil}
      />
      <Checkbox
        label="Pinned on top"
        pb={8}
        checked={pinned}
        onChange={(e) => setPinned(e.currentTarget.checked)}
      />
      {!notice && (
        <Checkbox
          label="Mail it too"
          pb={8}
          checked={mail}
          onChange={(e) => setMail(e.currentTarget.checked)}
        />
      )}
    </Group>
  );
}

interface EndingProps {
  done: () => void;
  title: string;
  save: UseMutationResult<{ mailed?: number }, Error, unknown>;
  notice: NoticeInfo | null;
  mail: boolean;
}

function Ending(props: EndingProps) {
  const { done, title, save, notice, mail } = props;
  return (
    <Group justify="flex-end">
      <Button variant="subtle" onClick={done}>
        Leave it
      </Button>
      <Button
        disabled={!title.trim()}
        loading={save.isPending}
        onClick={() => save.mutate(undefined, { onSuccess: done })}
      >
        {notice ? 'Save the notice' : mail ? 'Put it up and mail it' : 'Put it up'}
      </Button>
    </Group>
  );
}

function useText(notice: NoticeInfo | null) {
  return useEditor({
    extensions: [StarterKit.configure({ code: false, codeBlock: false, horizontalRule: false }), DayPlanNode],
    content: (notice?.body ?? EMPTY) as JSONContent,
    editorProps: {
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': 'Text of the notice' },
    },
  });
}
