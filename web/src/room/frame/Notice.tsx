import { useEffect, useState } from 'react';
import { useInside, type Inside } from '../live/useRoom';
import classes from './notice.module.css';

const SHOWN_MS = 9000;
const select = ({ room }: Inside) => room.notice;

/** What changed last, in one line at the foot of the stage, read out too. */
export function Notice() {
  const notice = useInside(select);
  const [read, setRead] = useState(0);
  useEffect(() => {
    const timer = setTimeout(() => setRead(notice?.seq ?? 0), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [notice]);
  const shown = notice && notice.seq !== read ? notice.text : null;
  return (
    <div
      className={classes.notice}
      data-shown={shown !== null}
      role="status"
      aria-live="polite"
      data-testid="notice"
    >
      {shown}
    </div>
  );
}
