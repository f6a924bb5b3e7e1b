import { Button } from '@mantine/core';
import { teaches } from '@nimble-bell/core/roster';
import { useInside, useRoom, useTeaching, type Inside } from '../live/useRoom';
import classes from './frame.module.css';

const select = ({ room, info, away }: Inside) => {
  const { microphone, camera } = room.desk;
  const here = Object.values(room.presence.people).filter((p) => p.present && teaches(p.role));
  return {
    // A class that has only just begun is told at once: that is when it matters.
    silent: room.bell.phase === 'live' && !away && here.every((p) => !microphone[p.member]),
    unseen: !camera[info.me.member],
    presents: Object.keys(room.stage.presenting).length > 0,
    over: room.bell.overAt !== null,
  };
};

/** Class is on, and nobody who teaches can be heard: whoever teaches is told, and is heard by one press. */
export function Unheard() {
  const { sendWithDevice } = useRoom();
  const teaching = useTeaching();
  const { silent, unseen, presents, over } = useInside(select);
  if (!teaching || !silent || over) return null;
  return (
    <div className={classes.turn}>
      <span role="status">
        {unseen && !presents ? 'You cannot be heard or seen yet.' : 'You cannot be heard yet.'}
      </span>
      <Button size="xs" onClick={() => void sendWithDevice('sound', { type: 'microphone', on: true })}>
        Be heard
      </Button>
    </div>
  );
}
