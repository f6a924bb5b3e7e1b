import { useState } from 'react';
import { durationWords } from '@nimble-bell/core/calendar';
import { useNow } from './clock';
import { putAway, useSaid, useShown, type Note } from './notices';
import classes from './notices.module.css';

/**
 * What was said to the person, at the foot of the page and aloud. Both regions stand from the beginning: a region that
 * comes with its words is not read.
 */
export function Notices() {
  const shown = useShown();
  return (
    <div className={classes.notices}>
      <div aria-live="polite">
        {shown
          .filter((n) => n.kind === 'done')
          .map((n) => (
            <Words key={n.id} note={n} />
          ))}
      </div>
      <div aria-live="assertive">
        {shown
          .filter((n) => n.kind === 'fault')
          .map((n) => (
            <Words key={n.id} note={n} />
          ))}
      </div>
    </div>
  );
}

const agoWords = (ms: number) => (ms < 60_000 ? 'just now' : `${durationWords(ms / 60_000)} ago`);

/** What was said lately, to look back at; nothing where nothing was. */
export function SaidLately() {
  const said = useSaid();
  const [open, setOpen] = useState(false);
  if (!said.length) return null;
  return (
    <details className={classes.lately} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>Said lately</summary>
      {open && <Lately said={said} />}
    </details>
  );
}

function Lately({ said }: { said: readonly Note[] }) {
  const now = useNow(20_000);
  return (
    <ol>
      {said.map(({ id, words, at, kind }) => (
        <li key={id} data-kind={kind}>
          {words} <small>{agoWords(now - at)}</small>
        </li>
      ))}
    </ol>
  );
}

function Words({ note: { id, words, kind } }: { note: Note }) {
  return (
    <div className={classes.note} data-kind={kind}>
      <span>{words}</span>
      <button type="button" aria-label="Take this away" onClick={() => putAway(id)}>
        ×
      </button>
    </div>
  );
}
