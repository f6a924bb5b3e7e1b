import { Button, Group, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';
import type { Film } from './film/useMedia';
import { lengthWords } from './words';
import classes from './watch.module.css';

interface ChaptersPanelProps {
  recording: RecordingDetail;
  position: number;
  film: Film;
}

/** Chapters, called otherwise, added at a moment and taken away; or as they come by themselves. */
export default function ChaptersPanel({ recording, position, film }: ChaptersPanelProps) {
  const ask = useAsk();
  const [draft, setDraft] = useState<RecordingDetail['chapters'] | null>(null);
  const chapters = draft ?? recording.chapters;
  const save = useChange(
    (next: RecordingDetail['chapters'] | null) =>
      ask(`/recordings/${recording.id}/chapters`, 'PUT', { chapters: next }).then(() => setDraft(null)),
    (_, next) => (next ? 'The chapters are called so.' : 'Chapters come by themselves again.'),
  );
  const add = () => {
    const one = { position: Math.round(position), title: '' };
    setDraft([...chapters, one].sort((a, b) => a.position - b.position));
  };
  return (
    <Panel
      title="Chapters"
      about="They come from segments, the floor and the board by themselves. Written here, they are yours."
    >
      <Stack gap="xs">
        <Rows {...{ chapters, set: setDraft }} goTo={film.seek} />
        {save.error && <Text c="var(--clay)">{save.error.message}</Text>}
        <Group>
          <Button variant="default" onClick={add}>
            A chapter at {lengthWords(position)}
          </Button>
          {draft && (
            <Button loading={save.isPending} onClick={() => save.mutate(draft)}>
              Save the chapters
            </Button>
          )}
          {recording.chaptersWritten && (
            <Button variant="subtle" loading={save.isPending} onClick={() => save.mutate(null)}>
              As they come by themselves
            </Button>
          )}
        </Group>
      </Stack>
    </Panel>
  );
}

interface RowsProps {
  chapters: RecordingDetail['chapters'];
  set: (chapters: RecordingDetail['chapters']) => void;
  goTo: (ms: number) => void;
}

const Rows = ({ chapters, set, goTo }: RowsProps) => (
  <ol className={classes.cues} aria-label="Chapters, to be written">
    {chapters.map((c, i) => (
      <li key={`${c.position} ${i}`} className={classes.chapterRow}>
        <button type="button" onClick={() => goTo(c.position)}>
          {lengthWords(c.position)}
        </button>
        <TextInput
          aria-label={`Chapter at ${lengthWords(c.position)}`}
          maxLength={120}
          value={c.title}
          onChange={(e) => {
            const title = e.currentTarget.value;
            set(chapters.map((one, k) => (k === i ? { ...one, title } : one)));
          }}
        />
        <Button
          size="compact-sm"
          variant="subtle"
          aria-label={`No chapter at ${lengthWords(c.position)}`}
          onClick={() => set(chapters.filter((_, k) => k !== i))}
        >
          Take away
        </Button>
      </li>
    ))}
  </ol>
);
