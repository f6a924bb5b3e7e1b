import { closesAt } from '@nimble-bell/core/room';
import { useNow } from '../../app/clock';
import { useInside, type Inside } from '../live/useRoom';
import classes from './frame.module.css';

/** A teacher whose page is opened again is back within this. */
const QUIET_MS = 12_000;

const select = ({ room }: Inside) => ({
  at: closesAt(room),
  since: room.door.unattendedSince,
});

/** Nobody who teaches is here: everyone sees when the room closes, unless one comes back. */
export function Alone() {
  const { at, since } = useInside(select);
  const now = useNow(1000);
  if (at === null || since === null || now - since < QUIET_MS) return null;
  const left = Math.max(0, Math.ceil((at - now) / 1000));
  return (
    <div className={classes.away}>
      <span role="status">No teacher is here. The room closes by itself unless one comes back.</span>{' '}
      <span className="figures" aria-hidden>
        {Math.floor(left / 60)}:{String(left % 60).padStart(2, '0')}
      </span>
    </div>
  );
}
