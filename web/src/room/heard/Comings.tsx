import { useEffect, useRef, useState } from 'react';
import { teaches } from '@nimble-bell/core/roster';
import { useInside, useMe, type Inside } from '../live/useRoom';
import { comingsBetween } from './comings';
import { ring } from './ring';
import classes from './comings.module.css';

/** What comes within this is told together; and a line stands so long. */
const GATHER_MS = 1200;
const SHOWN_MS = 8000;

/** How one is told of those who come and go; null where one is not. */
const selectHow = ({ room: { door }, info: { me } }: Inside) => {
  const { arrivalsFor, arrivalsBy } = door.rules;
  return arrivalsFor === 'everyone' || (arrivalsFor === 'teachers' && teaches(me.role)) ? arrivalsBy : null;
};
const selectPeople = ({ room }: Inside) => room.presence.people;

/** Who comes and goes, for those whom the door's rules tell of it: by a line, or by a bell. */
export function Comings() {
  const how = useInside(selectHow);
  return how && <Told how={how} />;
}

function Told({ how }: { how: 'line' | 'bell' }) {
  const people = useInside(selectPeople, Object.is);
  const { member: me } = useMe();
  const before = useRef(people);
  const latest = useRef(people);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const [line, setLine] = useState<string | null>(null);
  useEffect(() => {
    latest.current = people;
    if (timer.current !== null || people === before.current) return;
    timer.current = setTimeout(() => {
      timer.current = null;
      const words = comingsBetween(before.current, latest.current, me);
      before.current = latest.current;
      if (!words) return;
      if (how === 'bell') ring();
      else setLine(words);
    }, GATHER_MS);
  }, [people, how, me]);
  useEffect(() => () => void (timer.current !== null && clearTimeout(timer.current)), []);
  useEffect(() => {
    const over = setTimeout(() => setLine(null), SHOWN_MS);
    return () => clearTimeout(over);
  }, [line]);
  return (
    <p className={classes.line} role="status" data-testid="comings">
      {line}
    </p>
  );
}
