import { putAway, useShown, type Note } from './notices';
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
