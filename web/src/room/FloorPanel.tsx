import { Button, Text } from '@mantine/core';
import { Capability, Permission } from '@nimble-bell/core/api';
import { clockWords } from '@nimble-bell/core/calendar';
import { CAPABILITY_WORDS, PERMISSION_WORDS } from '@nimble-bell/core/limits';
import { classLimit } from '@nimble-bell/core/room';
import { PermissionMark } from '../ui/PermissionMark';
import { useRoom } from './useRoom';
import classes from './room.module.css';

/** Every capability with its state, one press each; hush; and the queue of hands. */
export function FloorPanel() {
  const { state, send } = useRoom();
  const live = state.phase === 'live';
  return (
    <>
      <button
        type="button"
        className={classes.hush}
        aria-pressed={state.hush !== null}
        disabled={!live}
        onClick={() => void send({ type: state.hush ? 'lift' : 'hush' })}
      >
        {state.hush ? 'Lift the hush' : 'Hush'}
        <kbd>H</kbd>
      </button>
      <h2 className={classes.heading}>Students may</h2>
      {Capability.options.map((c) => (
        <CapabilityRow key={c} capability={c} live={live} />
      ))}
      <Button
        variant="default"
        size="xs"
        fullWidth
        mt={8}
        disabled={!live}
        onClick={() => void send({ type: 'muteAll' })}
      >
        Mute everyone
      </Button>
      <Hands />
    </>
  );
}

function CapabilityRow({ capability, live }: { capability: Capability; live: boolean }) {
  const { state, send, nameOf } = useRoom();
  const { state: now, because } = classLimit(state, capability);
  const { label } = CAPABILITY_WORDS[capability];
  const who = because.by ? (state.occupants[because.by] ? nameOf(because.by) : because.by) : null;
  const source =
    because.name === 'college' || because.name === 'course' ? `the ${because.name}` : because.name;
  return (
    <div
      className={classes.capability}
      role="radiogroup"
      aria-label={label}
      title={`Set by ${source}${who ? `, ${who}` : ''}`}
    >
      <span>{label}</span>
      <div className={classes.states}>
        {Permission.options.map((p) => (
          <button
            key={p}
            type="button"
            role="radio"
            aria-checked={now === p}
            aria-label={`${label}: ${PERMISSION_WORDS[p]}`}
            title={PERMISSION_WORDS[p]}
            disabled={!live || state.hush !== null}
            className={classes.state}
            data-state={p}
            onClick={() => void send({ type: 'setLimit', capability, state: p })}
          >
            <PermissionMark state={p} />
            {now === p && <span>{PERMISSION_WORDS[p]}</span>}
          </button>
        ))}
      </div>
    </div>
  );
}

/** Who has the floor, and the hands in the order of raising. */
function Hands() {
  const { state, send, nameOf, info } = useRoom();
  return (
    <>
      <h2 className={classes.heading}>Hands{state.hands.length > 0 && ` (${state.hands.length})`}</h2>
      {state.floor && (
        <div className={classes.hand} data-floor>
          <span>
            <strong>{nameOf(state.floor)}</strong> has the floor
          </span>
          <Button
            size="compact-xs"
            color="clay"
            variant="light"
            onClick={() => void send({ type: 'takeFloor' })}
          >
            Take it back
          </Button>
        </div>
      )}
      {state.hands.map((h, i) => (
        <div className={classes.hand} key={h.member}>
          <span>
            {i + 1}. {nameOf(h.member)} <time>{clockWords(h.at, info.zone)}</time>
          </span>
          <span className={classes.handActs}>
            <Button size="compact-xs" onClick={() => void send({ type: 'giveFloor', member: h.member })}>
              Give the floor
            </Button>
            <Button
              size="compact-xs"
              variant="subtle"
              onClick={() => void send({ type: 'lowerHand', member: h.member })}
            >
              Lower
            </Button>
          </span>
        </div>
      ))}
      {state.hands.length === 0 && !state.floor && (
        <Text size="sm" c="dimmed">
          No hand is up.
        </Text>
      )}
    </>
  );
}
