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
import { useContext, useState, type ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router';
import { refusalWords } from '@nimble-bell/core/room';
import type { Capability } from '@nimble-bell/core/api';
import { LinkContext } from '../app/api';
import { useRoom } from './useRoom';
import classes from './room.module.css';

/** A person's own controls. One that is closed says why, instead of doing nothing. */
export function Desk() {
  const { state, me, send, sendWithDevice, teaching } = useRoom();
  const own = state.occupants[me];
  const handUp = state.hands.some((h) => h.member === me);
  const presenting = state.presenting === me;
  return (
    <div className={classes.desk} role="group" aria-label="Your desk">
      <DeskSwitch
        capability="speak"
        on={own?.microphone ?? false}
        label="Microphone"
        icon={own?.microphone ? <IconMicrophone size={21} /> : <IconMicrophoneOff size={21} />}
        turn={(on) =>
          on ? sendWithDevice('sound', { type: 'microphone', on }) : send({ type: 'microphone', on })
        }
      />
      <DeskSwitch
        capability="camera"
        on={own?.camera ?? false}
        label="Camera"
        icon={own?.camera ? <IconVideo size={21} /> : <IconVideoOff size={21} />}
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
          aria-pressed={handUp}
          onClick={() => void send(handUp ? { type: 'lowerHand', member: me } : { type: 'raiseHand' })}
        >
          <IconHandStop size={21} />
          {handUp ? 'Hand is up' : 'Raise hand'}
        </button>
      )}
      <LeaveButton />
    </div>
  );
}

interface SwitchProps {
  capability: Capability;
  on: boolean;
  label: string;
  icon: ReactNode;
  turn: (on: boolean) => Promise<boolean>;
}

function DeskSwitch({ capability, on, label, icon, turn }: SwitchProps) {
  const { may, state, info } = useRoom();
  const [why, setWhy] = useState(false);
  const [busy, setBusy] = useState(false);
  const { allowed } = may(capability);
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
          {refusalWords(state, info.me, capability)}
        </Text>
      </Popover.Dropdown>
    </Popover>
  );
}

function LeaveButton() {
  const navigate = useNavigate();
  const link = useContext(LinkContext);
  const { code } = useParams();
  const { info } = useRoom();
  return (
    <button
      type="button"
      className={classes.deskButton}
      onClick={() =>
        void navigate(link ? `/in/${code}` : `/course/${info.course.id}/session/${info.session.id}`)
      }
    >
      <IconDoorExit size={21} />
      Leave
    </button>
  );
}
