import { Text, TextInput, UnstyledButton } from '@mantine/core';
import { useDeferredValue, useMemo, useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import type { Cue } from '@nimble-bell/core/captions';
import { search, wordsOf, type Found } from '@nimble-bell/core/watching';
import { lengthWords } from './words';
import classes from './watch.module.css';

interface SearchPanelProps {
  recording: RecordingDetail;
  cues: Cue[];
  nameOf: (member: string) => string;
  goTo: (ms: number) => void;
}

const KIND: Record<Found['kind'], string> = {
  said: 'said',
  written: 'written',
  drawn: 'on the board',
  shown: 'on a page',
  chapter: 'chapter',
};
const MOST = 40;

/** What was said, written, put on the board and called a chapter: found, and a press from its moment. */
export function SearchPanel({ recording, cues, nameOf, goTo }: SearchPanelProps) {
  const [typed, setTyped] = useState('');
  const wanted = useDeferredValue(typed);
  const all = useMemo(() => wordsOf({ ...recording, cues }), [recording, cues]);
  const found = useMemo(() => search(all, wanted, nameOf), [all, wanted, nameOf]);
  return (
    <section aria-label="Search" className={classes.search}>
      <TextInput
        aria-label="Search in this recording"
        placeholder={cues.length ? 'What was said or written' : 'What was written'}
        value={typed}
        onChange={(e) => setTyped(e.currentTarget.value)}
      />
      {wanted.trim() && (
        <>
          <Text size="sm" c="dimmed" role="status">
            {found.length ? countWords(found.length, 'place') : 'Nothing of these words.'}
          </Text>
          <ol>
            {found.slice(0, MOST).map((f, i) => (
              <li key={`${f.position} ${i}`}>
                <UnstyledButton
                  className={classes.found}
                  onClick={() => goTo(Math.max(0, f.position - 1000))}
                >
                  <time>{lengthWords(f.position)}</time> <em>{f.member ? nameOf(f.member) : KIND[f.kind]}</em>{' '}
                  {f.text}
                </UnstyledButton>
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}
