import { Button, Checkbox } from '@mantine/core';
import { useReducedMotion } from '@mantine/hooks';
import { isAsked, type Picked } from '@nimble-bell/core/room';
import { useNow } from '../../../app/clock';
import { useInside, useMe, useNameOf, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import strip from '../strip.module.css';
import { namesPassing, PASSING_MS, passingAt } from './passing';
import classes from './pick.module.css';
import { useSlowly } from './slowly';

const select = ({ room }: Inside) => ({
  picked: room.pick.now,
  here: Object.values(room.presence.people)
    .filter((o) => o.present && isAsked(o))
    .map((o) => o.member)
    .join(' '),
});

/** Who is asked, by lot: at once, or after the names have passed. */
export default function PickStrip() {
  const { picked, here } = useInside(select);
  const still = useReducedMotion();
  if (!picked) return null;
  const key = `${picked.member} ${picked.at}`;
  return (
    <div className={strip.strip} data-testid="pick">
      {picked.slowly && !still ? (
        <Slowly key={key} picked={picked} here={here.split(' ')} />
      ) : (
        <Said picked={picked} />
      )}
    </div>
  );
}

function Slowly({ picked, here }: { picked: Picked; here: readonly string[] }) {
  const now = useNow(60);
  const nameOf = useNameOf();
  const ms = now - picked.at;
  if (ms >= PASSING_MS) return <Said picked={picked} />;
  const names = namesPassing(here.map(nameOf), nameOf(picked.member), picked.at);
  const at = Math.min(passingAt(ms), names.length - 1);
  return (
    <div className={classes.passing} aria-hidden>
      {[-1, 0, 1].map((d) => (
        <bdi key={d} data-middle={d === 0}>
          {names[at + d] ?? ''}
        </bdi>
      ))}
    </div>
  );
}

function Said({ picked }: { picked: Picked }) {
  const me = useMe();
  const nameOf = useNameOf();
  const teaching = useTeaching();
  const own = picked.member === me.member;
  return (
    <>
      <span role="status" className={classes.who}>
        {own ? (
          'You are asked.'
        ) : (
          <>
            <bdi>{nameOf(picked.member)}</bdi> is asked.
          </>
        )}
      </span>
      {teaching ? <Acts member={picked.member} /> : own && <PassOn />}
    </>
  );
}

function PassOn() {
  const { send } = useRoom();
  return (
    <Button size="compact-sm" variant="default" onClick={() => void send({ type: 'passOn' })}>
      Pass it on
    </Button>
  );
}

function Acts({ member }: { member: string }) {
  const { send } = useRoom();
  const [slowly, setSlowly] = useSlowly();
  return (
    <div className={strip.acts}>
      <Button size="compact-sm" onClick={() => void send({ type: 'giveFloor', member })}>
        Give the floor
      </Button>
      <PassOn />
      <Button size="compact-sm" variant="default" onClick={() => void send({ type: 'endPick' })}>
        Done
      </Button>
      <Checkbox
        size="xs"
        label="Let the names pass"
        checked={slowly}
        onChange={(e) => setSlowly(e.currentTarget.checked)}
        className={classes.slowly!}
      />
    </div>
  );
}
