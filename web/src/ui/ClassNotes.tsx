import { Stack, Text } from '@mantine/core';
import { useState } from 'react';
import type { ClassNotesInfo, NotesThen } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { CLASS } from '@nimble-bell/core/room';
import { useAsked } from '../app/queries';
import { Choice } from './Choice';
import { downloadText } from './download';
import { Panel } from './Panel';
import { SmallButton } from './SmallButton';

interface Props {
  session: string;
  name: string;
  /** The recording beside which they are read, and the instant at which it is. */
  beside?: { recording: string; at: number };
}

/** What a class wrote together, and its tables, to be read and taken along; nothing where it wrote none. */
export default function ClassNotes({ session, name, beside }: Props) {
  const { data } = useAsked<ClassNotesInfo>(`/sessions/${session}/notes`);
  const [place, setPlace] = useState(CLASS);
  const [when, setWhen] = useState<'then' | 'end'>('then');
  // What a table wrote is in no recording of the class.
  const notes = (data?.notes ?? []).filter((n) => !beside || n.place === CLASS);
  const shown = notes.find((n) => n.place === place) ?? notes[0];
  if (!shown) return null;
  const then = beside && when === 'then' ? beside : null;
  return (
    <Panel title="Class notes">
      <Stack gap="sm" align="flex-start">
        {notes.length > 1 && (
          <Choice
            label="Whose notes"
            value={shown.place}
            onChange={setPlace}
            options={notes.map((n) => ({ value: n.place, label: n.title }))}
          />
        )}
        {beside && (
          <Choice
            label="When"
            value={when}
            onChange={setWhen}
            options={[
              { value: 'then', label: 'As at this moment' },
              { value: 'end', label: 'As they became' },
            ]}
          />
        )}
        {then ? <Then {...then} /> : <Words text={shown.text} />}
        {!then && shown.by.length > 0 && (
          <Text size="sm" c="dimmed">
            Written by{' '}
            {shown.by.map(({ name: who, letters }, i) => (
              <span key={who}>
                {i > 0 && ', '}
                <bdi>{who}</bdi> ({countWords(letters, 'letter')})
              </span>
            ))}
            .
          </Text>
        )}
        <SmallButton onClick={() => downloadText(`${name} notes.txt`, allOf(notes))}>
          Take them along as text
        </SmallButton>
      </Stack>
    </Panel>
  );
}

/** The class's as they are; with tables', each under its title. */
const allOf = (notes: ClassNotesInfo['notes']) =>
  notes.length === 1 && notes[0]!.place === CLASS
    ? notes[0]!.text
    : notes.map(({ title, text }) => `${title}\n\n${text}\n`).join('\n');

const Words = ({ text }: { text: string }) => (
  <Text style={{ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' }}>{text}</Text>
);

/** So often it is asked anew while the recording plays, ms; where one goes elsewhere in it, at once. */
const EVERY_MS = 5000;
/** Between two pictures of a recording that plays there is less than this, however fast it does, ms. */
const PLAYED_MS = 2000;

/** The instant that is asked for: now and then while it plays, and each to which one goes. */
function useAskedAt(at: number): number {
  const [{ asked, last }, setAsked] = useState({ asked: at, last: at });
  if (at !== last) {
    const plays = at > last && at - last < PLAYED_MS && at - asked < EVERY_MS;
    setAsked({ asked: plays ? asked : at, last: at });
  }
  return asked;
}

function Then({ recording, at }: { recording: string; at: number }) {
  const asked = useAskedAt(Math.floor(at));
  const { data } = useAsked<NotesThen>(`/recordings/${recording}/class-notes/${asked}`, { keep: true });
  return <Words text={data ? data.text || 'Nothing is written yet.' : ''} />;
}
