import { Capability } from '@nimble-bell/core/api';
import { CAPABILITY_WORDS, PERMISSION_WORDS } from '@nimble-bell/core/limits';
import { refusalWords } from '@nimble-bell/core/room';
import { PermissionMark } from '../ui/PermissionMark';
import { useRoom } from './useRoom';
import classes from './room.module.css';

/** The floor as a student reads it: plain statements, each with its reason where it is closed. */
export function Statements() {
  const { state, may, me, info } = useRoom();
  return (
    <>
      <h2 className={classes.heading}>You may</h2>
      {state.floor === me && <p className={classes.yourFloor}>You have the floor.</p>}
      <ul className={classes.statements}>
        {Capability.options.map((c) => {
          const verdict = may(c);
          const shown = verdict.allowed ? 'open' : verdict.state;
          return (
            <li key={c} data-state={shown}>
              <PermissionMark state={shown} />
              <span>
                <strong>{CAPABILITY_WORDS[c].label}</strong>: {PERMISSION_WORDS[shown].toLowerCase()}
                {!verdict.allowed && <small>{refusalWords(state, info.me, c)}</small>}
              </span>
            </li>
          );
        })}
      </ul>
    </>
  );
}
