import { Button, Group, Text } from '@mantine/core';
import { useState, type KeyboardEvent } from 'react';
import { keyFault, keyOf, KEYS, type KeyId } from '../keys/keys';
import classes from './ways.module.css';
import { useWays } from './useWays';

const shown = (key: string) => key.toUpperCase();

interface KeyTableProps {
  /** Only what this reader's pages have; all of it where that is not known. */
  who?: 'teaching' | 'students' | null;
}

/** Every key of the room: what it does, and another for it, or none. */
export function KeyTable({ who = null }: KeyTableProps) {
  const ids = (Object.keys(KEYS) as KeyId[]).filter(
    (id) => who === null || KEYS[id].who === 'anyone' || KEYS[id].who === who,
  );
  return (
    <table className={classes.keys}>
      <thead>
        <tr>
          <th scope="col">What it does</th>
          <th scope="col">Key</th>
          <th scope="col">Change it</th>
        </tr>
      </thead>
      <tbody>
        {ids.map((id) => (
          <KeyRow key={id} id={id} />
        ))}
      </tbody>
    </table>
  );
}

function KeyRow({ id }: { id: KeyId }) {
  const { ways, keep } = useWays();
  const [waiting, setWaiting] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const key = keyOf(id, ways.keys);
  const { words, usual, who } = KEYS[id];
  const set = (chosen: string | null) => {
    setWaiting(false);
    setFault(null);
    keep(({ keys: { [id]: was, ...rest } }) => ({
      keys: chosen === usual ? rest : { ...rest, [id]: chosen },
    }));
  };
  const press = (e: KeyboardEvent) => {
    if (!waiting || e.key === 'Tab' || e.key === 'Shift') return;
    e.preventDefault();
    e.stopPropagation();
    if (e.key === 'Escape') return setWaiting(false);
    const wrong = keyFault(id, e.key, ways.keys);
    if (wrong) setFault(wrong);
    else set(e.key.toLowerCase());
  };
  return (
    <tr>
      <th scope="row">
        {words}
        {who !== 'anyone' && <small>{who === 'teaching' ? ' (those who teach)' : ' (students)'}</small>}
      </th>
      <td>{key === null ? 'none' : <kbd>{shown(key)}</kbd>}</td>
      <td>
        <Group gap={4}>
          <Button
            size="compact-sm"
            variant="default"
            aria-label={waiting ? `Press the key for: ${words}` : `Another key for: ${words}`}
            aria-pressed={waiting}
            onClick={() => setWaiting(!waiting)}
            onKeyDown={press}
            onBlur={() => setWaiting(false)}
          >
            {waiting ? 'Press a key' : 'Another'}
          </Button>
          {key !== null && <Quiet label={`No key for: ${words}`} word="None" act={() => set(null)} />}
          {key !== usual && (
            <Quiet
              label={`The usual key for: ${words}`}
              word={`${shown(usual)} again`}
              act={() => set(usual)}
            />
          )}
        </Group>
        {fault && (
          <Text size="sm" c="var(--clay)" role="alert">
            {fault}
          </Text>
        )}
      </td>
    </tr>
  );
}

const Quiet = ({ label, word, act }: { label: string; word: string; act: () => void }) => (
  <Button size="compact-sm" variant="subtle" aria-label={label} onClick={act}>
    {word}
  </Button>
);
