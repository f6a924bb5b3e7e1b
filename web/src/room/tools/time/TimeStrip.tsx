import { Button } from '@mantine/core';
import { lengthWords } from '@nimble-bell/core/calendar';
import { shownOf, type Timer } from '@nimble-bell/core/room';
import { useNow } from '../../../app/clock';
import { useInside, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import strip from '../strip.module.css';
import { Face } from './Face';

const select = ({ room }: Inside) => room.timer.on;

/** When it is said aloud how much is left, s. */
const SAID_AT = [60, 10];

const saidWords = ({ length }: Timer, shown: number): string => {
  if (length === null) return '';
  const at = SAID_AT.findLast((s) => shown <= s * 1000 && length > s * 1000);
  return at === undefined ? '' : `${at === 60 ? 'One minute' : 'Ten seconds'} left`;
};

/** The time that everybody sees; whoever teaches holds it, lengthens it, and takes it away. */
export default function TimeStrip() {
  const timer = useInside(select, Object.is);
  const now = useNow(200);
  const teaching = useTeaching();
  if (!timer) return null;
  const shown = shownOf(timer, now);
  return (
    <div className={strip.strip} data-testid="time">
      <Face timer={timer} now={now} />
      <span role="status" className={strip.unseen}>
        {saidWords(timer, shown)}
      </span>
      {teaching && <Acts timer={timer} left={lengthWords(shown)} />}
    </div>
  );
}

function Acts({ timer: { length, heldAt } }: { timer: Timer; left: string }) {
  const { send } = useRoom();
  const held = heldAt !== null;
  return (
    <div className={strip.acts}>
      {length !== null && (
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => void send({ type: 'moreTime', seconds: 60 })}
        >
          1 minute more
        </Button>
      )}
      <Button
        size="compact-sm"
        variant="default"
        onClick={() => void send({ type: 'holdTimer', hold: !held })}
      >
        {held ? 'Let it go on' : 'Hold it'}
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => void send({ type: 'stopTimer' })}>
        Take it away
      </Button>
    </div>
  );
}
