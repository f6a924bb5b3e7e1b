import { Anchor, Button, Group, Loader, TextInput } from '@mantine/core';
import { useDeferredValue, useState } from 'react';
import { clockWords } from '@nimble-bell/core/calendar';
import { writeCsv } from '@nimble-bell/core/roster';
import { useAsked } from '../app/queries';
import { downloadCsv } from '../ui/download';
import { Empty, Panel } from '../ui/Panel';
import classes from './log.module.css';

interface LogLine {
  at: number;
  text: string;
}

/** What happened in a session, in words: asked for when it is wanted. */
export function LogPanel({ session, name, zone }: { session: string; name: string; zone: string }) {
  const [open, setOpen] = useState(false);
  return (
    <Panel
      title="Log"
      about="Who came, wrote, was muted or put out, and when. Nobody can change it."
      action={
        !open && (
          <Button variant="default" onClick={() => setOpen(true)}>
            Show the log
          </Button>
        )
      }
    >
      {open && <Lines {...{ session, name, zone }} />}
    </Panel>
  );
}

/** So many are drawn; more are found by their words. */
const MOST = 400;

function Lines({ session, name, zone }: { session: string; name: string; zone: string }) {
  const { data } = useAsked<LogLine[]>(`/sessions/${session}/log`);
  const [words, setWords] = useState('');
  const wanted = useDeferredValue(words.trim().toLowerCase());
  if (!data) return <Loader aria-label="Looking up the log" />;
  const lines = data.filter((l) => !wanted || l.text.toLowerCase().includes(wanted));
  return (
    <>
      <Group mb="sm" align="center">
        <TextInput
          aria-label="Words in the log"
          placeholder="A name, or what happened"
          w={280}
          value={words}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
        <Button
          variant="default"
          onClick={() =>
            downloadCsv(
              `Log of ${name}.csv`,
              writeCsv(
                ['When', 'What'],
                lines.map((l) => [new Date(l.at).toISOString(), l.text]),
              ),
            )
          }
        >
          Download as CSV
        </Button>
        <Anchor href={`/api/sessions/${session}/log/signed`}>Signed, for an incident</Anchor>
      </Group>
      {lines.length === 0 ? (
        <Empty>{data.length ? 'Nothing of these words.' : 'Nothing has happened.'}</Empty>
      ) : (
        <ol className={classes.log} tabIndex={0} aria-label="What happened">
          {lines.slice(0, MOST).map((l, i) => (
            <li key={`${l.at} ${i}`}>
              <time>{clockWords(l.at, zone)}</time> {l.text}
            </li>
          ))}
          {lines.length > MOST && <li>and {lines.length - MOST} more: search for a word.</li>}
        </ol>
      )}
    </>
  );
}
