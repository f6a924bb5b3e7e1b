import { Button, Checkbox, Group, Stack, Text, Textarea, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import type { NoteInfo, RecordingDetail } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useAsked, useChange } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';
import { lengthWords } from './words';
import type { Film } from './film/useMedia';
import classes from './watch.module.css';

interface NotesProps {
  recording: RecordingDetail;
  position: number;
  film: Film;
  goTo: (ms: number) => void;
}

/** What one keeps at moments of a recording for oneself, and what one asks; for those who teach, what they are asked. */
export default function Notes({ recording, position, film, goTo }: NotesProps) {
  const { data = [] } = useAsked<NoteInfo[]>(`/recordings/${recording.id}/notes`);
  return (
    <Panel
      title="Notes at a moment"
      about="Yours alone. A question goes to those who teach, with its moment."
    >
      <Stack gap="xs">
        <Write recording={recording} position={position} film={film} />
        {data.length === 0 && <Empty>Write at any moment: it leads back there.</Empty>}
        <ul className={classes.notes}>
          {data.map((note) => (
            <Note key={note.id} {...{ note, goTo }} recording={recording} />
          ))}
        </ul>
      </Stack>
    </Panel>
  );
}

function Write({
  recording: { id, teaching },
  position,
  film,
}: Pick<NotesProps, 'recording' | 'position' | 'film'>) {
  const ask = useAsk();
  const [text, setText] = useState('');
  const [asks, setAsks] = useState(false);
  /** Where one was when one began to write: the film may go on meanwhile. */
  const [from, setFrom] = useState<number | null>(null);
  const save = useChange(
    () => ask(`/recordings/${id}/notes`, 'POST', { position: from ?? position, text, asks }),
    () => {
      setText('');
      setFrom(null);
      return asks ? 'Your question is on its way to those who teach.' : 'Noted.';
    },
  );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) save.mutate(undefined);
      }}
    >
      <Textarea
        id="note-here"
        aria-label="A note at this moment"
        placeholder={`At ${lengthWords(from ?? position)} …`}
        rows={2}
        classNames={{ input: classes.grows }}
        maxLength={2000}
        value={text}
        onChange={(e) => {
          const typed = e.currentTarget.value;
          setText(typed);
          setFrom((known) => (typed ? (known ?? film.now()) : null));
        }}
      />
      <Group justify="space-between" mt={6}>
        {teaching ? (
          <span />
        ) : (
          <Checkbox
            size="sm"
            label="Ask those who teach"
            checked={asks}
            onChange={(e) => setAsks(e.currentTarget.checked)}
          />
        )}
        <Button type="submit" size="xs" disabled={!text.trim()} loading={save.isPending}>
          {asks ? 'Ask' : 'Keep it'}
        </Button>
      </Group>
    </form>
  );
}

function Note({
  note,
  recording,
  goTo,
}: {
  note: NoteInfo;
  recording: RecordingDetail;
  goTo: (ms: number) => void;
}) {
  const ask = useAsk();
  const path = `/recordings/${recording.id}/notes/${note.id}`;
  const remove = useChange(
    () => ask(path, 'DELETE'),
    () => 'The note is gone.',
  );
  const at = lengthWords(note.position);
  return (
    <li>
      <UnstyledButton className={classes.found} onClick={() => goTo(note.position)}>
        <time>{at}</time>{' '}
        {note.kind === 'question' && <em>{note.by === null ? 'you ask' : `${note.by} asks`}</em>} {note.text}
      </UnstyledButton>
      {note.answer && (
        <Text size="sm" className={classes.answer}>
          Answered: {note.answer}
        </Text>
      )}
      {note.by === null && (
        <Button
          size="compact-xs"
          variant="subtle"
          aria-label={`Take away the note at ${at}`}
          onClick={() => remove.mutate(undefined)}
        >
          Take away
        </Button>
      )}
      {recording.teaching && note.kind === 'question' && <Answer path={path} at={at} known={note.answer} />}
    </li>
  );
}

function Answer({ path, at, known }: { path: string; at: string; known: string | null }) {
  const ask = useAsk();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState(known ?? '');
  const save = useChange(
    () => ask(`${path}/answer`, 'PUT', { answer: text }),
    () => {
      setOpen(false);
      return 'Answered: it stands beside the question.';
    },
  );
  if (!open)
    return (
      <Button size="compact-xs" variant="default" onClick={() => setOpen(true)}>
        {known ? 'Answer otherwise' : 'Answer'}
      </Button>
    );
  return (
    <Stack gap={4}>
      <Textarea
        aria-label={`Answer to the question at ${at}`}
        autosize
        minRows={2}
        maxLength={2000}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        data-autofocus
      />
      <Group gap="xs">
        <Button size="compact-sm" loading={save.isPending} onClick={() => save.mutate(undefined)}>
          Answer
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => setOpen(false)}>
          Not now
        </Button>
      </Group>
    </Stack>
  );
}
