import { classLimit } from '@nimble-bell/core/room';
import type { Role } from '@nimble-bell/core/roster';
import { useNow } from '../../app/clock';
import { ActButton } from '../controls/ActButton';
import { useInside, useRoom, type Inside } from '../live/useRoom';

/** As long as a class needs to read a question and answer it. */
const SECONDS = 60;

const select = ({ room }: Inside) => ({
  live: room.bell.phase === 'live' && room.limits.hush === null,
  open: classLimit(room, 'writeToClass').state === 'open',
  lent: room.limits.lent?.capability === 'writeToClass',
  until: room.limits.lent?.until ?? 0,
  answered: room.limits.lent?.answered.length ?? 0,
  /** Who can answer: it closes once all have. */
  students: Object.values(room.presence.people).filter((o) => o.present && writes(o.role)).length,
});

/** Those who are asked: observers only watch. */
const writes = (role: Role) => role === 'student' || role === 'guest';

/** Writing open for one question: one press, and it closes by itself, sooner where everybody has answered. */
export function OneQuestion() {
  const { send } = useRoom();
  const { live, open, lent, until, answered, students } = useInside(select);
  const now = useNow(1000);
  const left = Math.max(0, Math.ceil((until - now) / 1000));
  return (
    <ActButton
      act="question"
      pressed={lent}
      disabled={!live || (open && !lent)}
      mark={
        lent && (
          <span className="figures" aria-hidden>
            {left} s, {answered} of {students}
          </span>
        )
      }
      onClick={() =>
        void send(
          lent
            ? { type: 'closeAgain' }
            : {
                ...{ type: 'openFor', capability: 'writeToClass', seconds: SECONDS },
                ...(students ? { answers: students } : {}),
              },
        )
      }
    >
      {lent ? 'Close writing now' : 'Writing for one question'}
    </ActButton>
  );
}
