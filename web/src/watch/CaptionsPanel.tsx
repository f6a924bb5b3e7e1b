import { Button, FileButton, Group, NativeSelect, Stack, Text, Textarea } from '@mantine/core';
import { useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { stampOf, writeVtt, type Cue } from '@nimble-bell/core/captions';
import { useSendText } from './useSendText';
import { Empty, Panel } from '../ui/Panel';
import { useCues } from './useCues';
import type { Film } from './film/useMedia';
import { languageWords } from './languages';
import { lengthWords } from './words';
import classes from './watch.module.css';

interface CaptionsPanelProps {
  recording: RecordingDetail;
  position: number;
  film: Film;
}

const LANGUAGES = ['en', 'fr', 'es', 'pt', 'de', 'it', 'nl', 'uk', 'ar'];

/** Captions of a recording: a file brought in, or typed and mended here against the sound. */
export default function CaptionsPanel({ recording, position, film }: CaptionsPanelProps) {
  const known = recording.captions.map((c) => c.language);
  const [language, setLanguage] = useState(known[0] ?? 'en');
  const path = recording.captions.find((c) => c.language === language);
  const loaded = useCues(path ? [path] : []);
  const [draft, setDraft] = useState<{ language: string; cues: Cue[] } | null>(null);
  const cues = draft?.language === language ? draft.cues : loaded;
  const set = (next: Cue[]) => setDraft({ language, cues: next });
  const { save, remove } = useSendText(recording.id, language, () => setDraft(null));
  return (
    <Panel
      title="Captions"
      about="For everyone who reads along, and for the search. Bring a WebVTT or SubRip file in, or write them here."
      action={
        <Group gap="xs">
          <NativeSelect
            aria-label="Language of the captions"
            value={language}
            data={[...new Set([...known, ...LANGUAGES])].map((l) => ({ value: l, label: languageWords(l) }))}
            onChange={(e) => setLanguage(e.currentTarget.value)}
          />
          <FileButton accept=".vtt,.srt,text/vtt" onChange={(file) => void file?.text().then(save.mutate)}>
            {(props) => (
              <Button variant="default" {...props}>
                Bring a file in
              </Button>
            )}
          </FileButton>
        </Group>
      }
    >
      <Stack gap="xs">
        {cues.length === 0 && <Empty>There are no captions in {languageWords(language)}.</Empty>}
        {cues.length > 0 && <Lines {...{ cues, position, set }} goTo={film.seek} />}
        {save.error && <Text c="var(--clay)">{save.error.message}</Text>}
        <Group>
          <Button variant="default" onClick={() => set(withOne(cues, position, recording.lengthMs))}>
            A caption at {lengthWords(position)}
          </Button>
          {draft?.language === language && (
            <Button
              loading={save.isPending}
              onClick={() => save.mutate(writeVtt(cues.filter((c) => c.text.trim())))}
            >
              Save the captions
            </Button>
          )}
          {path && (
            <Button variant="subtle" loading={remove.isPending} onClick={() => remove.mutate()}>
              Take them away
            </Button>
          )}
        </Group>
      </Stack>
    </Panel>
  );
}

interface LinesProps {
  cues: readonly Cue[];
  position: number;
  set: (cues: Cue[]) => void;
  goTo: (ms: number) => void;
}

/** Each caption with its moment, the one that is said now marked. */
const Lines = ({ cues, position, set, goTo }: LinesProps) => (
  <ol className={classes.cues} aria-label="Captions, to be mended">
    {cues.map((c, i) => (
      <li key={`${c.from} ${i}`} data-on={position >= c.from && position < c.until ? true : undefined}>
        <button type="button" title={stampOf(c.from)} onClick={() => goTo(c.from)}>
          {lengthWords(c.from)}
        </button>
        <Textarea
          aria-label={`Caption at ${lengthWords(c.from)}`}
          autosize
          minRows={1}
          maxLength={500}
          value={c.text}
          onChange={(e) => set(cues.map((one, k) => (k === i ? { ...one, text: e.target.value } : one)))}
        />
      </li>
    ))}
  </ol>
);

const LONG_MS = 4000;

/** One more, from here until the next begins. */
function withOne(cues: readonly Cue[], position: number, lengthMs: number): Cue[] {
  const from = Math.round(position);
  const next = cues.find((c) => c.from > from)?.from ?? Math.max(from + 1000, lengthMs);
  const one: Cue = { from, until: Math.min(from + LONG_MS, next), text: '' };
  return [...cues, one].sort((a, b) => a.from - b.from);
}
