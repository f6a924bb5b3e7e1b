import { Popover, Text } from '@mantine/core';
import {
  IconDoorExit,
  IconHandStop,
  IconMicrophone,
  IconMicrophoneOff,
  IconScreenShare,
  IconVideo,
  IconVideoOff,
} from '@tabler/icons-react';
import { useState, type ReactNode } from 'react';
import type { Capability } from '@nimble-bell/core/api';
import { isOn, speaksBy } from '@nimble-bell/core/room';
import type { KeyId } from '../../keys/keys';
import { useRefusal } from '../controls/useRefusal';
import { useInside, useMay, useRoom, useTeaching, type Inside } from '../live/useRoom';
import { SignButton } from '../signs/SignButton';
import classes from './desk.module.css';
import { DevicesButton } from './DevicesButton';
import { useHeldToSpeak } from './useHeldToSpeak';
import { useLeave } from './useLeave';

/** One's own switches and hand. */
const select = ({ room, info: { me } }: Inside) => ({
  me: me.member,
  microphone: isOn(room, me.member, 'sound'),
  telephone: speaksBy(room, me.member) === 'telephone',
  camera: isOn(room, me.member, 'camera'),
  presenting: isOn(room, me.member, 'screen'),
  handUp: room.floor.hands.some((h) => h.member === me.member),
});

/** A person's own controls. One that is closed says why, instead of doing nothing. */
export function Desk() {
  const { send, sendWithDevice } = useRoom();
  const { me, microphone, telephone, camera, presenting, handUp } = useInside(select);
  const teaching = useTeaching();
  const turn = (on: boolean) =>
    on && !telephone ? sendWithDevice('sound', { type: 'microphone', on }) : send({ type: 'microphone', on });
  useHeldToSpeak(microphone, (on) => void turn(on));
  return (
    <div className={classes.desk} role="group" aria-label="Your desk">
      <DeskSwitch
        capability="speak"
        on={microphone}
        label={telephone ? 'Telephone' : 'Microphone'}
        act="microphone"
        icon={microphone ? <IconMicrophone size={21} /> : <IconMicrophoneOff size={21} />}
        turn={turn}
      />
      <DeskSwitch
        capability="camera"
        on={camera}
        label="Camera"
        act="camera"
        icon={camera ? <IconVideo size={21} /> : <IconVideoOff size={21} />}
        turn={(on) => (on ? sendWithDevice('camera', { type: 'camera', on }) : send({ type: 'camera', on }))}
      />
      <DeskSwitch
        capability="present"
        on={presenting}
        label={presenting ? 'Presenting' : 'Present'}
        icon={<IconScreenShare size={21} />}
        turn={(on) =>
          on ? sendWithDevice('screen', { type: 'present', on }) : send({ type: 'present', on })
        }
      />
      {!teaching && (
        <button
          type="button"
          className={classes.deskButton}
          data-act="hand"
          aria-pressed={handUp}
          onClick={() => void send(handUp ? { type: 'lowerHand', member: me } : { type: 'raiseHand' })}
        >
          <IconHandStop size={21} />
          {handUp ? 'Hand is up' : 'Raise hand'}
        </button>
      )}
      {!teaching && <SignButton />}
      <LeaveButton />
      <DevicesButton />
    </div>
  );
}

interface SwitchProps {
  capability: Capability;
  on: boolean;
  label: string;
  icon: ReactNode;
  /** The key's name for it. */
  act?: KeyId;
  turn: (on: boolean) => Promise<boolean>;
}

function DeskSwitch({ capability, on, label, icon, act, turn }: SwitchProps) {
  const { allowed } = useMay(capability);
  const refusal = useRefusal(capability);
  const [why, setWhy] = useState(false);
  const [busy, setBusy] = useState(false);
  const press = async () => {
    if (!allowed && !on) return setWhy(!why);
    setBusy(true);
    await turn(!on);
    setBusy(false);
  };
  const word = !allowed ? 'closed' : on ? 'on' : 'off';
  return (
    <Popover opened={why && !allowed} onChange={setWhy} width={260} position="top" withArrow shadow="md">
      <Popover.Target>
        <button
          type="button"
          className={classes.deskButton}
          data-act={act}
          aria-pressed={on}
          aria-label={`${label}: ${word}`}
          data-closed={!allowed}
          data-busy={busy}
          onClick={() => void press()}
        >
          {icon}
          {label}
          <small>{word}</small>
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <Text size="sm" role="alert" data-testid="why-closed">
          {refusal}
        </Text>
      </Popover.Dropdown>
    </Popover>
  );
}

function LeaveButton() {
  const leave = useLeave();
  return (
    <button type="button" className={classes.deskButton} onClick={leave}>
      <IconDoorExit size={21} />
      Leave
    </button>
  );
}
