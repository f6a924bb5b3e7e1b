import { useInside, type Inside } from '../live/useRoom';
import classes from './frame.module.css';

const select = ({ away, relay }: Inside) => ({ away, relay });

/** What is missing just now, and that it comes back by itself. */
export function Away() {
  const { away, relay } = useInside(select);
  if (away)
    return (
      <div className={classes.away} role="alert">
        The connection is lost. It comes back by itself; nothing you wrote is lost.
      </div>
    );
  if (relay) return null;
  return (
    <div className={classes.away} role="status">
      Sound and picture are away for the moment. Talk and everything else go on.
    </div>
  );
}
