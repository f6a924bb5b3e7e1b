import { Button, TextInput } from '@mantine/core';
import { lazy, Suspense, useCallback, useMemo, useState } from 'react';
import { isHere, type Knock, type RoomCommand } from '@nimble-bell/core/room';
import { similarNames } from '@nimble-bell/core/roster';
import { useInfo, useInside, useRoom, type Inside } from '../live/useRoom';
import { useLine } from '../controls/useLine';
import { Knocker } from './Knocker';
import classes from './door.module.css';

// Seldom asked for.
const TurnAway = lazy(() => import('./TurnAway'));

/** As many are named; more are let in together, or shown when asked for. */
const NAMED = 6;

/** Those of the class list who are not here, as they are called. */
const missing = ({ room, info }: Inside) =>
  info.people.filter((p) => !isHere(room, p.member)).map(({ member, name }) => ({ member, name }));
const sameMissing = (a: { member: string }[], b: { member: string }[]) =>
  a.length === b.length && a.every((p, i) => p.member === b[i]!.member);

/** Those who knock, one by one, and what can be done with several. */
export default function Knocks({ knocks }: { knocks: readonly Knock[] }) {
  const { send } = useRoom();
  const { zone } = useInfo();
  const absent = useInside(missing, sameMissing);
  const [all, setAll] = useState(false);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [turning, setTurning] = useState<Knock | null>(null);
  const choose = useCallback(
    (member: string, on: boolean) =>
      setChosen((known) => new Set(on ? [...known, member] : [...known].filter((m) => m !== member))),
    [],
  );
  const act = useCallback((command: RoomCommand) => void send(command), [send]);
  const shown = all ? knocks : knocks.slice(0, NAMED);
  const likes = useMemo(() => shown.map((k) => likeOf(k, absent)), [shown, absent]);
  return (
    <>
      <div role="list" className={classes.knocks}>
        {shown.map((k, i) => (
          <Knocker
            key={k.member}
            {...{ knock: k, zone, choose }}
            like={likes[i]!}
            chosen={chosen.has(k.member)}
            send={act}
            turnAway={setTurning}
          />
        ))}
      </div>
      {knocks.length > NAMED && (
        <Button size="compact-xs" variant="subtle" onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? 'Show the first few' : `and ${knocks.length - NAMED} more`}
        </Button>
      )}
      <Several knocks={knocks} chosen={chosen} act={act} />
      <Word />
      {turning && (
        <Suspense>
          <TurnAway member={turning.member} name={turning.name} close={() => setTurning(null)} />
        </Suspense>
      )}
    </>
  );
}

/** Whoever is on the list themselves is known; anybody else may be one of those who are missing. */
const likeOf = ({ member, name, role, came }: Knock, absent: readonly { member: string; name: string }[]) =>
  role === 'student' && !came
    ? null
    : (absent.find((p) => p.member !== member && similarNames(p.name, name))?.name ?? null);

interface SeveralProps {
  knocks: readonly Knock[];
  chosen: ReadonlySet<string>;
  act: (command: RoomCommand) => void;
}

/** Those who are chosen, or all, by one press. */
function Several({ knocks, chosen, act }: SeveralProps) {
  const all = knocks.map((k) => k.member);
  const some = all.filter((m) => chosen.has(m));
  const button = { size: 'xs', fullWidth: true, mt: 6 } as const;
  return (
    <>
      {some.length > 0 && (
        <Button {...button} onClick={() => act({ type: 'letIn', members: some })}>
          Let in the {some.length} chosen
        </Button>
      )}
      {all.length > 1 && (
        <Button
          {...button}
          variant={some.length ? 'default' : 'filled'}
          onClick={() => act({ type: 'letIn', members: all })}
        >
          Let in all {all.length}
        </Button>
      )}
    </>
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
