import { Popover, Stack, Switch } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { Choice } from '../../../ui/Choice';
import { SmallButton } from '../../../ui/SmallButton';
import { placeOf } from '@nimble-bell/core/room';
import { nameFrom, useInside, useRoom, type Inside } from '../../live/useRoom';
import { keepCaptions, useKeptCaptions } from './kept';
import classes from './captions.module.css';

/** So many lines are read at once. */
const LINES = 2;
/** What somebody has of a line is taken for gone after this, ms. */
const STAYS_MS = 4000;

const select = ({ room, info }: Inside) => {
  const here = placeOf(room, info.me.member);
  const lines = room.captions.lines.filter((l) => l.place === here).slice(-LINES);
  return lines.map((l) => ({
    ...{ seq: l.seq, text: l.text },
    // Whoever writes gives names where they matter; a program is told whose voice it is.
    name: l.heard ? nameFrom({ room, info }, l.by) : null,
  }));
};

/** What is being written at this moment, as far as it is. */
function useBegun(): string {
  const { connection } = useRoom();
  const [begun, setBegun] = useState('');
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    const stop = connection.onSignal((signal) => {
      if (signal.what !== 'captioning') return;
      setBegun(signal.text);
      clearTimeout(timer.current);
      timer.current = setTimeout(() => setBegun(''), STAYS_MS);
    });
    return () => {
      stop();
      clearTimeout(timer.current);
    };
  }, [connection]);
  return begun;
}

/** The last of what was said, as large and where one wishes. */
export default function CaptionLines() {
  const { shown, size, ground } = useKeptCaptions();
  const last = useInside(select);
  const begun = useBegun();
  return (
    <section className={classes.captions} aria-label="Captions" data-ground={ground} data-shown={shown}>
      {shown && (
        <p className={classes.lines} data-size={size} dir="auto" data-testid="class-captions">
          {last.map((l, i) => (
            <span key={l.seq}>
              {l.name && l.name !== last[i - 1]?.name && <b>{l.name}: </b>}
              {l.text}
            </span>
          ))}
          {begun && <span className={classes.begun}>{begun}</span>}
          {!last.length && !begun && <span className={classes.begun}>Captions appear here.</span>}
        </p>
      )}
      <How />
    </section>
  );
}

function How() {
  const { shown, size, place, ground } = useKeptCaptions();
  const [open, setOpen] = useState(false);
  return (
    <Popover opened={open} onChange={setOpen} position="top-end" shadow="md" trapFocus returnFocus>
      <Popover.Target>
        <SmallButton aria-expanded={open} onClick={() => setOpen(!open)}>
          {shown ? 'How I read them' : 'Captions'}
        </SmallButton>
      </Popover.Target>
      <Popover.Dropdown aria-label="How I read captions">
        <Stack gap="xs">
          <Switch
            label="Show captions"
            checked={shown}
            onChange={(e) => keepCaptions({ shown: e.currentTarget.checked })}
            autoFocus
          />
          <Choice
            label="Their size"
            value={size}
            onChange={(s) => keepCaptions({ size: s })}
            options={[
              { value: 'plain', label: 'As text' },
              { value: 'large', label: 'Large' },
              { value: 'largest', label: 'Largest' },
            ]}
          />
          <Choice
            label="Where they stand"
            value={place}
            onChange={(p) => keepCaptions({ place: p })}
            options={[
              { value: 'below', label: 'Under the stage' },
              { value: 'above', label: 'Over it' },
            ]}
          />
          <Choice
            label="Their ground"
            value={ground}
            onChange={(g) => keepCaptions({ ground: g })}
            options={[
              { value: 'dark', label: 'Light on dark' },
              { value: 'paper', label: 'As the page' },
            ]}
          />
        </Stack>
      </Popover.Dropdown>
    </Popover>
  );
}
