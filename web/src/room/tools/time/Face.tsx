import { lengthWords } from '@nimble-bell/core/calendar';
import { shownOf, type Timer } from '@nimble-bell/core/room';
import strip from '../strip.module.css';
import classes from './time.module.css';

/** From here on it is said to be short, ms. */
const SHORT_MS = 10_000;

/** A timer in figures, and as a line that runs out; what it is for beside it. */
export function Face({ timer, now }: { timer: Timer; now: number }) {
  const { length, heldAt, what } = timer;
  const shown = shownOf(timer, now);
  // Counted down, a second that has begun is still to come.
  const figures = lengthWords(
    length === null ? Math.floor(shown / 1000) * 1000 : Math.ceil(shown / 1000) * 1000,
  );
  return (
    <>
      <div className={strip.words}>
        <strong
          role="timer"
          className={`figures ${classes.figures}`}
          data-short={length !== null && shown <= SHORT_MS}
        >
          {figures}
        </strong>
        {what && <span className={classes.what}>{what}</span>}
        {heldAt !== null && <span className={classes.held}>held</span>}
      </div>
      {length !== null && (
        <div className={classes.line} style={{ width: `${(100 * shown) / length}%` }} aria-hidden />
      )}
    </>
  );
}
