import { clockWords } from '@nimble-bell/core/calendar';
import { SmallButton } from '../../ui/SmallButton';
import { useLeave } from '../desk/useLeave';
import { useInfo, useInside, useTeaching, type Inside } from '../live/useRoom';
import classes from './frame.module.css';

const select = ({ room }: Inside) => ({
  at: room.bell.overAt,
  stay: Object.values(room.presence.people).filter((p) => p.present && p.role === 'student').length,
});

/** The class is over, and some stay for a question. */
export function Over() {
  const { at, stay } = useInside(select);
  const { zone } = useInfo();
  const teaching = useTeaching();
  const leave = useLeave();
  if (at === null) return null;
  return (
    <div className={classes.away}>
      {teaching ? (
        `Class is over since ${clockWords(at, zone)}. ${stay} here still.`
      ) : (
        <>
          Class is over. Stay if you have a question. <SmallButton onClick={leave}>Leave</SmallButton>
        </>
      )}
    </div>
  );
}
