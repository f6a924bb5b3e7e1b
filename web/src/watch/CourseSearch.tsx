import { Anchor, Text, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';
import { Link } from 'react-router';
import type { CourseFound } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsked } from '../app/queries';
import { lengthWords } from './words';
import classes from './watch.module.css';

const LEAST = 2;
const TYPED_MS = 300;

/** Of one recording ten are given at most: the recording itself has the others. */
function foundWords(count: number): string {
  if (!count) return 'Nothing of these words.';
  return `${countWords(count, 'place')}${count < 10 ? '' : ', ten at most of each recording, the newest first'}`;
}

/** What was said and written in all of a course's recordings, each place with the way to its moment. */
export default function CourseSearch({
  course,
  to,
  begins = false,
}: {
  course: string;
  to: (recording: string) => string;
  /** One pressed to search: the field has focus. */
  begins?: boolean;
}) {
  const [typed, setTyped] = useState('');
  const [wanted] = useDebouncedValue(typed.trim(), TYPED_MS);
  const found = useAsked<CourseFound[]>(`/courses/${course}/search?q=${encodeURIComponent(wanted)}`, {
    enabled: wanted.length >= LEAST,
    keep: true,
  });
  return (
    <section aria-label="Search in the recordings" className={classes.search}>
      <TextInput
        aria-label="Search in all recordings"
        placeholder="What was said, written, or on the board"
        maxLength={200}
        autoFocus={begins}
        value={typed}
        onChange={(e) => setTyped(e.currentTarget.value)}
      />
      {wanted.length >= LEAST && found.data && (
        <>
          <Text size="sm" c="dimmed" role="status">
            {foundWords(found.data.length)}
          </Text>
          <ol>
            {found.data.map((f) => (
              <li key={`${f.recording} ${f.kind} ${f.position} ${f.text}`} className={classes.found}>
                <Anchor component={Link} to={`${to(f.recording)}?at=${Math.floor(f.position / 1000)}`}>
                  {f.title}, {lengthWords(f.position)}
                </Anchor>{' '}
                {f.text}
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}
