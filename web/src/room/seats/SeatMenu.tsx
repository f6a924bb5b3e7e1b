import { Menu } from '@mantine/core';
import { useState, type RefObject } from 'react';
import { useRoom } from '../live/useRoom';
import type { Shown } from './Seat';

interface SeatMenuProps {
  /** The seat's button: the menu opens over it, and leads back to it. */
  seat: RefObject<HTMLButtonElement | null>;
  member: string;
  name: string;
  me: boolean;
  shown: Shown;
  close: () => void;
  ask: (what: 'putOut' | 'rename') => void;
}

/** What can be done with somebody at their seat. */
export default function SeatMenu({ seat, member, name, me, shown, close, ask }: SeatMenuProps) {
  const [place] = useState(() => placeOf(seat.current!));
  return (
    <Menu
      opened
      position="top"
      withArrow
      returnFocus={false}
      onClose={() => {
        seat.current?.focus();
        close();
      }}
    >
      <Menu.Target>
        <span
          aria-hidden
          aria-label={name}
          style={{ ...place, position: 'absolute', pointerEvents: 'none' }}
        />
      </Menu.Target>
      <Menu.Dropdown>
        {!me && <Acts member={member} name={name} shown={shown} />}
        <Menu.Item onClick={() => ask('rename')}>
          {me ? 'Change your name …' : 'Correct the name …'}
        </Menu.Item>
        {!me && <Menu.Item onClick={() => ask('putOut')}>Put out …</Menu.Item>}
      </Menu.Dropdown>
    </Menu>
  );
}

const placeOf = ({
  offsetLeft: left,
  offsetTop: top,
  offsetWidth: width,
  offsetHeight: height,
}: HTMLElement) => ({
  ...{ left, top, width, height },
});

function Acts({ member, name, shown }: Pick<SeatMenuProps, 'member' | 'name' | 'shown'>) {
  const { send } = useRoom();
  return (
    <>
      <Menu.Label>
        {name}
        {shown.excepted && `: ${shown.excepted}`}
      </Menu.Label>
      <Menu.Item disabled={!shown.microphone} onClick={() => void send({ type: 'mute', member })}>
        Mute
      </Menu.Item>
      {shown.floor ? (
        <Menu.Item onClick={() => void send({ type: 'takeFloor' })}>Take the floor back</Menu.Item>
      ) : (
        <Menu.Item onClick={() => void send({ type: 'giveFloor', member })}>Give the floor</Menu.Item>
      )}
      <Menu.Item
        disabled={shown.microphone || shown.listens}
        onClick={() => void send({ type: 'askOn', member })}
      >
        Ask to switch on
      </Menu.Item>
      <Menu.Item onClick={() => void send({ type: 'askToPresent', member })}>Ask to present</Menu.Item>
      <Menu.Item
        disabled={!shown.camera && !shown.featured}
        onClick={() => void send({ type: 'feature', member: shown.featured ? null : member })}
      >
        {shown.featured ? 'Not large for all any more' : 'Large for all'}
      </Menu.Item>
      {shown.hand && (
        <Menu.Item onClick={() => void send({ type: 'lowerHand', member })}>Lower the hand</Menu.Item>
      )}
      <Menu.Divider />
    </>
  );
}
