import type { ShownWork } from '@nimble-bell/core/room';
import { SmallButton } from '../../../ui/SmallButton';
import { useInside, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import classes from './tables.module.css';

/** The tables of the last time. */
const select = ({ room }: Inside) => {
  const { were } = room.tables;
  const last = were[0]?.place.replace(/-[0-9]+$/, '-');
  const drawn = new Set(room.board.marks.map((m) => m.place));
  return were
    .filter((t) => last !== undefined && t.place.startsWith(last))
    .map(({ place, name }) => ({ place, name, drew: drawn.has(place) }));
};

/** What the tables made: shown to the class one after another, and put back. */
export default function Work({ shown }: { shown: ShownWork | null }) {
  const { send } = useRoom();
  const teaching = useTeaching();
  const tables = useInside(select);
  return (
    <div className={classes.work} role="group" aria-label="What the tables made">
      <span>{shown ? <strong>What {shown.title} made</strong> : 'Show what was made at'}</span>
      {teaching &&
        tables.map(({ place, name, drew }) => (
          <SmallButton
            key={place}
            aria-pressed={shown?.from === place}
            apart={shown?.from === place}
            title={drew ? undefined : 'Nothing is on its board; its notes are shown with it.'}
            onClick={() => void send({ type: 'showWork', place })}
          >
            {name}
          </SmallButton>
        ))}
      {teaching && shown && (
        <SmallButton onClick={() => void send({ type: 'putWorkBack' })}>The class’s own board</SmallButton>
      )}
    </div>
  );
}
