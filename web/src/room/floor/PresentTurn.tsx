import { Button, Group } from '@mantine/core';
import { useState } from 'react';
import { may } from '@nimble-bell/core/room';
import { useInside, useNameOf, useRoom, type Inside } from '../live/useRoom';
import classes from '../frame/frame.module.css';

const select = ({ room, info: { me } }: Inside) => ({
  by: room.stage.asked[me.member] ?? null,
  allowed: may(room, me, 'present').allowed,
});

/** Whoever is asked to present is told so on the stage; only they can choose what, and begin. */
export default function PresentTurn() {
  const { by, allowed } = useInside(select);
  const { sendWithDevice } = useRoom();
  const nameOf = useNameOf();
  const [later, setLater] = useState<string | null>(null);
  if (!by || !allowed || later === by) return null;
  return (
    <div className={classes.turn}>
      <span role="status">{nameOf(by)} asks you to present.</span>
      <Group gap="xs" wrap="nowrap">
        <Button size="xs" onClick={() => void sendWithDevice('screen', { type: 'present', on: true })}>
          Present
        </Button>
        <Button size="xs" variant="default" onClick={() => setLater(by)}>
          Not now
        </Button>
      </Group>
    </div>
  );
}
