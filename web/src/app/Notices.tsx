import { instantWords } from '@nimble-bell/core/calendar';
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

/** What was said lately, to look back at; nothing where nothing was. */
export function SaidLately() {
  const said = useSaid();
  if (!said.length) return null;
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return (
    <details className={classes.lately}>
      <summary>Said lately</summary>
      <ol>
        {said.map(({ id, words, at, kind }) => (
          <li key={id} data-kind={kind}>
            <time>{instantWords(at, zone)}</time> {words}
          </li>
        ))}
      </ol>
    </details>
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
