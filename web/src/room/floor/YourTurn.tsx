import { Button, Group } from '@mantine/core';
import { useState } from 'react';
import { may } from '@nimble-bell/core/room';
import { useInside, useNameOf, useRoom, useTeaching, type Inside } from '../live/useRoom';
import classes from '../frame/frame.module.css';

const select = ({ room, info: { me } }: Inside) => ({
  floor: room.floor.holder === me.member,
  may: may(room, me, 'speak').allowed,
  by: room.desk.asked[me.member] ?? null,
  on: Boolean(room.desk.microphone[me.member]),
});

/** Whoever was given the floor, or asked to switch on, is told so on the stage; only they can switch on. */
export function YourTurn() {
  const { floor, by, on, may: allowed } = useInside(select);
  const teaching = useTeaching();
  if (teaching || on || !allowed || !(floor || by)) return null;
  return <Turn key={`${floor} ${by}`} floor={floor} by={by} />;
}

function Turn({ floor, by }: { floor: boolean; by: string | null }) {
  const { sendWithDevice } = useRoom();
  const nameOf = useNameOf();
  const [later, setLater] = useState(false);
  if (later) return null;
  const words = by ? `${nameOf(by)} asks you to switch your microphone on.` : 'You have the floor.';
  return (
    <div className={classes.turn}>
      <span role="status">
        {floor && by ? 'You have the floor. ' : ''}
        {words}
      </span>
      <Group gap="xs" wrap="nowrap">
        <Button size="xs" onClick={() => void sendWithDevice('sound', { type: 'microphone', on: true })}>
          Microphone on
        </Button>
        <Button size="xs" variant="default" onClick={() => setLater(true)}>
          Not now
        </Button>
      </Group>
    </div>
  );
}
