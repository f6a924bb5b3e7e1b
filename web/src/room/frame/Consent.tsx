import { lazy, Suspense } from 'react';
import { teaches } from '@nimble-bell/core/roster';
import { useInside, type Inside } from '../live/useRoom';

// Asked once, of students, where a class is recorded.
const ConsentAsked = lazy(() => import('./ConsentAsked'));

/** Somebody of a class that is recorded, or will be, who has not said whether they are to be in it. */
const select = ({ room: { recording }, info: { me } }: Inside) =>
  !teaches(me.role) &&
  me.role !== 'observer' &&
  (recording.automatic || recording.state !== 'off') &&
  !recording.answers[me.member];

export function Consent() {
  const asks = useInside(select);
  return (
    asks && (
      <Suspense>
        <ConsentAsked />
      </Suspense>
    )
  );
}
