import { Button, Text } from '@mantine/core';
import { IconBell, IconBellOff } from '@tabler/icons-react';
import type { Capability } from '@nimble-bell/core/api';
import { lazy, memo, Suspense, useMemo } from 'react';
import { clockWords } from '@nimble-bell/core/calendar';
import { PERMISSION_WORDS, rowOf, IN_CLASS } from '@nimble-bell/core/limits';
import { classLimit } from '@nimble-bell/core/room';
import { Choice } from '../../ui/Choice';
import { PermissionMark } from '../../ui/PermissionMark';
import { ActButton } from '../controls/ActButton';
import { Why } from '../controls/Why';
import { AtTheDoor } from '../door/AtTheDoor';
import { Lock } from '../door/Lock';
import { useInfo, useInside, useNameOf, useRoom, type Inside } from '../live/useRoom';
import { AtHand } from '../tools/AtHand';
import { WithUs } from '../withUs/WithUs';
import parts from '../frame/parts.module.css';
import { handBell, ringHands, useHandBell } from './handBell';
import { OneQuestion } from './OneQuestion';
import classes from './floor.module.css';

// Made when the first is given.
const SignCounts = lazy(() => import('../signs/SignCounts'));

const selectHush = ({ room }: Inside) => ({
  live: room.bell.phase === 'live',
  hushed: room.limits.hush !== null,
  open: classLimit(room, 'speak').state === 'open',
  signs: Object.keys(room.signs).length > 0,
});
const selectFloor = ({ room }: Inside) => ({
  ...room.floor,
  /** Who has it is not heard, and was not asked yet. */
  muted:
    room.floor.holder !== null &&
    !room.desk.microphone[room.floor.holder] &&
    !room.desk.asked[room.floor.holder],
});

/** Every capability with its state, one press each; hush; and the queue of hands. */
export function FloorPanel() {
  const { send } = useRoom();
  const { live, hushed, open, signs } = useInside(selectHush);
  return (
    <aside className={classes.floor} aria-label="The floor">
      <ActButton
        act="hush"
        className={classes.hush}
        pressed={hushed}
        disabled={!live}
        onClick={() => void send({ type: hushed ? 'lift' : 'hush' })}
      >
        {hushed ? 'Lift the hush' : 'Hush'}
      </ActButton>
      <AtHand />
      <AtTheDoor />
      <Hands />
      {signs && (
        <Suspense>
          <SignCounts />
        </Suspense>
      )}
      {live && <WithUs />}
      <h2 className={parts.heading}>Students may</h2>
      {IN_CLASS.map((c) => (
        <CapabilityRow key={c} capability={c} settable={live && !hushed} />
      ))}
      <OneQuestion />
      <Mutes live={live} open={open} />
      <Lock />
    </aside>
  );
}

interface RowProps {
  capability: Capability;
  settable: boolean;
}

const CapabilityRow = memo(function CapabilityRow({ capability, settable }: RowProps) {
  const { send } = useRoom();
  const select = useMemo(
    () =>
      ({ room }: Inside) =>
        classLimit(room, capability).state,
    [capability],
  );
  const now = useInside(select);
  const { label, states } = rowOf(capability);
  return (
    <div className={classes.capability}>
      <Why capability={capability} />
      <Choice
        label={label}
        wholeNames
        follows={false}
        disabled={!settable}
        value={now}
        onChange={(state) => void send({ type: 'setLimit', capability, state })}
        options={states.map((p) => ({
          value: p,
          label: PERMISSION_WORDS[p],
          face: (
            <>
              <PermissionMark state={p} />
              {now === p && <span>{PERMISSION_WORDS[p]}</span>}
            </>
          ),
        }))}
        styles={{ group: classes.states!, option: classes.state! }}
      />
    </div>
  );
});

/** A turn that ends by itself. */
const TURN_MINUTES = 2;

/** Who has the floor, and the hands in the order of raising. */
function Hands() {
  const { send } = useRoom();
  const { hands, holder, until, muted } = useInside(selectFloor);
  const nameOf = useNameOf();
  const info = useInfo();
  useHandBell(hands);
  return (
    <>
      <div className={classes.handsHead}>
        <h2 className={parts.heading}>Hands{hands.length > 0 && ` (${hands.length})`}</h2>
        <HandBell />
      </div>
      {holder && <Holder holder={holder} until={until} muted={muted} />}
      {hands.map((h, i) => (
        <div className={classes.hand} key={h.member}>
          <span>
            {i + 1}. {nameOf(h.member)} <time>{clockWords(h.at, info.zone)}</time>
          </span>
          <span className={classes.handActs}>
            <Button
              size="compact-xs"
              px={5}
              {...(i === 0 && !holder ? { 'data-act': 'floor' } : {})}
              onClick={() => void send({ type: 'giveFloor', member: h.member })}
            >
              Give the floor
            </Button>
            <Button
              size="compact-xs"
              px={5}
              variant="default"
              aria-label={`${TURN_MINUTES} min of the floor for ${nameOf(h.member)}`}
              onClick={() => void send({ type: 'giveFloor', member: h.member, minutes: TURN_MINUTES })}
            >
              {TURN_MINUTES} min
            </Button>
            <Button
              size="compact-xs"
              px={5}
              variant="subtle"
              onClick={() => void send({ type: 'lowerHand', member: h.member })}
            >
              Lower
            </Button>
          </span>
        </div>
      ))}
      {hands.length > 1 && (
        <Button size="compact-xs" variant="subtle" onClick={() => void send({ type: 'lowerAll' })}>
          Lower all {hands.length}
        </Button>
      )}
      {hands.length === 0 && !holder && (
        <Text size="sm" c="dimmed">
          No hand is up.
        </Text>
      )}
    </>
  );
}

/** Whether a hand that goes up rings, on this device. */
function HandBell() {
  const on = handBell.use();
  const words = on ? 'A hand that goes up rings' : 'Hands go up silently';
  return (
    <button
      type="button"
      className={classes.handBell}
      aria-label="A hand that goes up rings"
      aria-pressed={on}
      title={words}
      onClick={() => ringHands(!on)}
    >
      {on ? <IconBell size={17} /> : <IconBellOff size={17} />}
    </button>
  );
}

function Holder({ holder, until, muted }: { holder: string; until: number | null; muted: boolean }) {
  const { send } = useRoom();
  const nameOf = useNameOf();
  const info = useInfo();
  return (
    <div className={classes.hand} data-floor>
      <span>
        <strong>{nameOf(holder)}</strong> has the floor
        {until !== null && <> until {clockWords(until, info.zone)}</>}
      </span>
      <span className={classes.handActs}>
        {muted && (
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => void send({ type: 'askOn', member: holder })}
          >
            Ask to switch on
          </Button>
        )}
        <Button
          size="compact-xs"
          color="clay"
          variant="light"
          data-act="floor"
          onClick={() => void send({ type: 'takeFloor' })}
        >
          Take it back
        </Button>
      </span>
    </div>
  );
}

/** All are muted, and may switch on again; or only by hand from now. */
function Mutes({ live, open }: { live: boolean; open: boolean }) {
  const { send } = useRoom();
  return (
    <>
      <ActButton act="mute" pressed={false} disabled={!live} onClick={() => void send({ type: 'muteAll' })}>
        Mute everyone
      </ActButton>
      {open && (
        <ActButton
          act="silence"
          pressed={false}
          disabled={!live}
          onClick={() => void send({ type: 'muteAll', again: false })}
        >
          Mute, and by hand now
        </ActButton>
      )}
    </>
  );
}
