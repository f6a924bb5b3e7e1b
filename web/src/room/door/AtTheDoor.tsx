import { Button, TextInput } from '@mantine/core';
import { clockWords } from '@nimble-bell/core/calendar';
import { useInfo, useInside, useRoom, type Inside } from '../live/useRoom';
import { useLine } from '../controls/useLine';
import parts from '../frame/parts.module.css';
import classes from './door.module.css';

const select = ({ room }: Inside) => room.door;
/** As many are named; more are let in together. */
const NAMED = 6;

/** Who knocks, since when, and what can be done; it takes no focus and covers nothing. */
export function AtTheDoor() {
  const { knocks } = useInside(select, Object.is);
  const { send } = useRoom();
  const { zone } = useInfo();
  if (!knocks.length) return null;
  const all = knocks.map((k) => k.member);
  return (
    <section className={classes.door} aria-label={`At the door: ${knocks.length}`}>
      <h2 className={parts.heading}>At the door ({knocks.length})</h2>
      {knocks.slice(0, NAMED).map((k) => (
        <div key={k.member} className={classes.knock}>
          <span className={classes.name}>
            <bdi>{k.name}</bdi>
            {k.role === 'guest' && ', guest'} <time>{clockWords(k.at, zone)}</time>
          </span>
          <span className={classes.acts}>
            <Button
              size="compact-xs"
              aria-label={`Let in ${k.name}`}
              onClick={() => void send({ type: 'letIn', members: [k.member] })}
            >
              Let in
            </Button>
            <Button
              size="compact-xs"
              variant="subtle"
              aria-label={`Turn away ${k.name}`}
              onClick={() => void send({ type: 'turnAway', members: [k.member], word: '' })}
            >
              Turn away
            </Button>
          </span>
        </div>
      ))}
      {knocks.length > NAMED && <p className={classes.knock}>and {knocks.length - NAMED} more</p>}
      {knocks.length > 1 && (
        <Button size="xs" fullWidth mt={6} onClick={() => void send({ type: 'letIn', members: all })}>
          Let in all {knocks.length}
        </Button>
      )}
      <Word />
    </section>
  );
}

/** A word to all who wait. */
function Word() {
  const { send } = useRoom();
  const { field } = useLine((text) => send({ type: 'porchWord', text }));
  return (
    <TextInput
      mt={6}
      size="xs"
      aria-label="A word to those who wait"
      placeholder="A word to them, and Enter"
      maxLength={200}
      {...field}
    />
  );
}
