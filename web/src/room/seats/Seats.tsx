import type { SeatPerson } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { isHere, placeOf, quietSince } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { useMemo } from 'react';
import { useAsk } from '../../app/api';
import { useChange } from '../../app/queries';
import { nameFrom, seated, useInside, useMe, useTeaching, type Inside } from '../live/useRoom';
import { useQuiet } from '../withUs/useQuiet';
import { inSeatOrder, ordering, type Ordering } from './ordering';
import { Seat } from './Seat';
import { useListening } from './speaking';
import classes from './seats.module.css';

/** In which order people sit, and how many of them are here: who sits how is each seat's own. */
const select =
  (ordered: Ordering) =>
  ({ room, info }: Inside) => {
    const all = seated({ room, info });
    const people =
      ordered.by === 'list' || !teaches(info.me.role)
        ? all
        : inSeatOrder(all, ordered, (member) => quietSince(room, member));
    const here = people.filter((p) => isHere(room, p.member));
    // Who is where one is comes first, each in the order that is wished; then who is elsewhere in the room; the absent follow.
    const place = placeOf(room, info.me.member);
    const beside = here.filter((p) => placeOf(room, p.member) === place);
    const elsewhere = here.filter((p) => placeOf(room, p.member) !== place);
    const order = [...beside, ...elsewhere, ...people.filter((p) => !isHere(room, p.member))];
    return {
      order,
      names: order.map((p) => nameFrom({ room, info }, p.member)),
      here: here.length,
      all: people.length,
      missing: people.filter((p) => isMissing(p) && !isHere(room, p.member)).length,
      live: room.bell.phase === 'live',
      session: info.session.id,
    };
  };
const isMissing = (p: SeatPerson) => p.role === 'student' || p.role === 'guest';

type Sitting = ReturnType<ReturnType<typeof select>>;
const sameSeats = (a: Sitting, b: Sitting) =>
  a.here === b.here &&
  a.all === b.all &&
  a.missing === b.missing &&
  a.live === b.live &&
  a.order.every((p, i) => p.member === b.order[i]?.member && p.role === b.order[i]?.role) &&
  a.names.every((name, i) => name === b.names[i]);

/** The whole class list in its places. */
export function Seats() {
  const teaching = useTeaching();
  const me = useMe().member;
  const ordered = ordering.use();
  const { order, names, here, all, missing, live, session } = useInside(
    useMemo(() => select(ordered), [ordered]),
    sameSeats,
  );
  const speaking = useListening();
  const { quiet, hidden } = useQuiet();
  return (
    <section className={classes.seats} aria-label={`Seats: ${here} of ${all} are here`}>
      <div className={classes.seatGrid} tabIndex={0} data-act="seats" role="group" aria-label="Class list">
        {order.map((p, i) => (
          <Seat
            key={p.member}
            member={p.member}
            name={names[i]!}
            role={p.role}
            me={p.member === me}
            {...{ teaching, speaking }}
            quiet={quiet.has(p.member)}
            hidden={hidden.has(p.member)}
          />
        ))}
        {teaching && live && <Nudge session={session} missing={missing} />}
      </div>
    </section>
  );
}

/** A word by mail to those who are missing; each gets it once. */
function Nudge({ session, missing }: { session: string; missing: number }) {
  const ask = useAsk();
  const nudge = useChange(
    () => ask<{ queued: number; missing: number }>(`/sessions/${session}/nudge`, 'POST', {}),
    ({ queued, missing: left }) =>
      queued
        ? `${countWords(queued, 'person', 'people')} nudged by mail.`
        : left
          ? 'Everyone missing was nudged already.'
          : 'Nobody is missing.',
  );
  if (!missing) return null;
  return (
    <button
      type="button"
      className={`${classes.seat} ${classes.nudge}`}
      disabled={nudge.isPending}
      onClick={() => nudge.mutate(undefined)}
    >
      Nudge {missing} missing
    </button>
  );
}
