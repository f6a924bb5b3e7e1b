import { lazy, Suspense } from 'react';
import { useInside, type Inside } from '../live/useRoom';
import parts from '../frame/parts.module.css';
import classes from './door.module.css';

// Many a class has nobody knock.
const Knocks = lazy(() => import('./Knocks'));

const select = ({ room }: Inside) => room.door.knocks;

/** Who knocks, since when, and what can be done; it takes no focus and covers nothing. */
export function AtTheDoor() {
  const knocks = useInside(select, Object.is);
  if (!knocks.length) return null;
  return (
    <section className={classes.door} aria-label={`At the door: ${knocks.length}`}>
      <h2 className={parts.heading}>At the door ({knocks.length})</h2>
      <Suspense>
        <Knocks knocks={knocks} />
      </Suspense>
    </section>
  );
}
