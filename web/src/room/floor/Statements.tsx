import type { Capability } from '@nimble-bell/core/api';
import { PERMISSION_WORDS, IN_CLASS } from '@nimble-bell/core/limits';
import { PermissionMark } from '../../ui/PermissionMark';
import { Why } from '../controls/Why';
import { useRefusal } from '../controls/useRefusal';
import { useInside, useMay, useRoom, type Inside } from '../live/useRoom';
import { useSayHidden } from '../withUs/hidden';
import parts from '../frame/parts.module.css';
import classes from './floor.module.css';

const selectFloor = ({ room, info }: Inside) => room.floor.holder === info.me.member;

/** The floor as a student reads it: plain statements, each with its reason where it is closed. */
export function Statements() {
  useSayHidden();
  const mine = useInside(selectFloor);
  return (
    <aside className={classes.floor} aria-label="What you may do">
      <h2 className={parts.heading}>You may</h2>
      {mine && <p className={classes.yourFloor}>You have the floor.</p>}
      <ul className={classes.statements}>
        {IN_CLASS.map((c) => (
          <Statement key={c} capability={c} />
        ))}
      </ul>
      <p className={classes.seen}>
        Those who teach see when you last took part, and whether this page is hidden. It is not kept.
      </p>
      <InRecording />
    </aside>
  );
}

const selectAnswer = ({ room: { recording }, info }: Inside) => recording.answers[info.me.member] ?? null;

/** What one said of being in the recording, and the way to say otherwise. */
function InRecording() {
  const answer = useInside(selectAnswer);
  const { send } = useRoom();
  if (!answer) return null;
  const withheld = answer === 'withheld';
  return (
    <p>
      You are {withheld ? 'not ' : ''}in the recording.{' '}
      <button
        type="button"
        className={classes.answer}
        onClick={() => void send({ type: 'answerRecording', agrees: withheld })}
      >
        {withheld ? 'Keep me too' : 'Not me'}
      </button>
    </p>
  );
}

function Statement({ capability }: { capability: Capability }) {
  const { allowed, state } = useMay(capability);
  const refusal = useRefusal(capability);
  const shown = allowed ? 'open' : state;
  return (
    <li data-state={shown}>
      <PermissionMark state={shown} />
      <span>
        <strong>
          <Why capability={capability} />
        </strong>
        : {PERMISSION_WORDS[shown].toLowerCase()}
        {!allowed && <small>{refusal}</small>}
      </span>
    </li>
  );
}
