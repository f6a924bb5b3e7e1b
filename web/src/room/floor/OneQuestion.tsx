import { useNow } from '../../app/clock';
import { keyOf } from '../../keys/keys';
import { useWays } from '../../ways/useWays';
import { classLimit } from '@nimble-bell/core/room';
import { useInside, useRoom, type Inside } from '../live/useRoom';
import classes from './floor.module.css';

/** As long as a class needs to read a question and answer it. */
const SECONDS = 60;

const select = ({ room }: Inside) => ({
  live: room.bell.phase === 'live' && room.limits.hush === null,
  open: classLimit(room, 'writeToClass').state === 'open',
  lent: room.limits.lent?.capability === 'writeToClass',
  until: room.limits.lent?.until ?? 0,
});

/** Writing open for one question: one press, and it closes by itself. */
export function OneQuestion() {
  const { send } = useRoom();
  const { live, open, lent, until } = useInside(select);
  const key = keyOf('question', useWays().ways.keys);
  const now = useNow(1000);
  const left = Math.max(0, Math.ceil((until - now) / 1000));
  return (
    <button
      type="button"
      className={classes.question}
      data-act="question"
      aria-keyshortcuts={key?.toUpperCase()}
      aria-pressed={lent}
      disabled={!live || (open && !lent)}
      onClick={() =>
        void send(
          lent ? { type: 'closeAgain' } : { type: 'openFor', capability: 'writeToClass', seconds: SECONDS },
        )
      }
    >
      <span>{lent ? 'Close writing now' : 'Writing for one question'}</span>
      {lent ? (
        <span className="figures" aria-hidden>{`${left} s`}</span>
      ) : (
        key && <kbd>{key.toUpperCase()}</kbd>
      )}
    </button>
  );
}
