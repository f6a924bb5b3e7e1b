import { Button, Group, NumberInput, Stack, Textarea } from '@mantine/core';
import { useMemo, useState } from 'react';
import { isSeated, MOST_TABLES, type Laid } from '@nimble-bell/core/room';
import { SmallButton } from '../../../ui/SmallButton';
import { Choice } from '../../../ui/Choice';
import { nameFrom, seated, useInside, useRoom, type Inside } from '../../live/useRoom';
import { ChooseFiles } from './ChooseFiles';
import { groupsOf, proposedTables, sizeWords, usualCount, type Way } from './proposed';
import { Dragged, TableTop } from './TableTop';
import TheirLimits, { OPEN } from './TheirLimits';
import classes from './tables.module.css';

const WAYS: { value: Way; label: string }[] = [
  { value: 'lot', label: 'By lot' },
  { value: 'groups', label: 'By groups' },
  { value: 'choice', label: 'They choose' },
];
const LENGTHS = ['5', '10', '15', '20', '30', ''].map((value) => ({
  value,
  label: value ? `${value} min` : 'Until I call',
}));

function select({ room, info }: Inside) {
  const people = seated({ room, info }).filter(isSeated);
  return {
    people: people.map((p) => ({
      member: p.member,
      group: p.group,
      name: nameFrom({ room, info }, p.member),
      here: room.presence.people[p.member]?.present ?? false,
    })),
    met: room.tables.met,
  };
}

/** Who would sit where: drawn anew with another way, number or lot; what was changed by hand goes then. */
function useProposal() {
  const now = useInside(select);
  // Who comes while it is thought out is seated where fewest sit.
  const [{ people, met }] = useState(now);
  const here = useMemo(() => new Set(people.filter((p) => p.here).map((p) => p.member)), [people]);
  const [wanted, setWanted] = useState(() => ({
    ...{ way: 'lot' as Way, count: usualCount(here.size), seed: Math.floor(Math.random() * 2 ** 31) },
    moved: {} as Record<string, number>,
  }));
  const tables = useMemo(() => proposedTables(people, here, met, wanted), [people, here, met, wanted]);
  const anew = (change: Partial<Omit<typeof wanted, 'moved'>>) =>
    setWanted({ ...wanted, ...change, moved: {} });
  return {
    ...{ people, tables, anew, way: wanted.way, count: wanted.count },
    nobody: here.size === 0,
    again: () => anew({ seed: wanted.seed + 1 }),
    move: (member: string, to: number) => setWanted({ ...wanted, moved: { ...wanted.moved, [member]: to } }),
  };
}

/** Tables for the class: how many, who sits where, how long, and what for. */
export default function LayTables({ close }: { close: () => void }) {
  const { send } = useRoom();
  const { people, tables, way, count, nobody, anew, again, move } = useProposal();
  const [minutes, setMinutes] = useState('10');
  const [task, setTask] = useState('');
  const [files, setFiles] = useState<Laid['files']>([]);
  const [said, setSaid] = useState(OPEN);
  const ways = groupsOf(people).length > 1 ? WAYS : WAYS.filter((w) => w.value !== 'groups');
  const lay = () => {
    close();
    void send({
      type: 'layTables',
      ...{ tables, limits: said.limits, seconds: minutes ? Number(minutes) * 60 : null },
      ...(said.sheet ? { sheet: said.sheet } : {}),
      ...(task.trim() ? { task: task.trim() } : {}),
      ...(files.length ? { files: [...files] } : {}),
      ...(way === 'choice' ? { choose: true } : {}),
    });
  };
  return (
    <Stack gap="sm">
      <Choice label="Who sits where" options={ways} value={way} onChange={(w) => anew({ way: w })} />
      {way !== 'groups' && (
        <NumberInput
          label="Tables"
          description={way === 'lot' ? sizeWords(tables) : undefined}
          min={1}
          max={MOST_TABLES}
          clampBehavior="strict"
          allowDecimal={false}
          value={count}
          onChange={(v) => anew({ count: typeof v === 'number' && v >= 1 ? v : 1 })}
          data-autofocus
        />
      )}
      <Choice label="For how long" options={LENGTHS} value={minutes} onChange={setMinutes} />
      <Textarea
        label="What to do there"
        placeholder="It stands over the stage of each table"
        maxLength={1000}
        autosize
        minRows={1}
        maxRows={4}
        value={task}
        onChange={(e) => setTask(e.currentTarget.value)}
      />
      <ChooseFiles files={files} set={setFiles} />
      <TheirLimits label="What they may there" now={said} set={setSaid} />
      <Recorded />
      <Button onClick={lay} disabled={way === 'lot' && nobody}>
        To the tables
      </Button>
      {way !== 'choice' && <Seating {...{ people, tables, way, move, again }} />}
    </Stack>
  );
}

/** That what is said there is kept, before it is. */
function Recorded() {
  const recorded = useInside(({ room: { recording } }) => recording.state === 'on' && recording.tables);
  if (!recorded) return null;
  return (
    <span className={classes.hint}>
      Each table is recorded by itself, for who sits there and for those who teach.
    </span>
  );
}

interface SeatingProps {
  people: readonly { member: string; name: string; here: boolean }[];
  tables: readonly { name: string; members: readonly string[] }[];
  way: Way;
  move: (member: string, to: number) => void;
  again: () => void;
}

/** Who would sit where; each can be seated elsewhere by two presses. */
function Seating({ people, tables, way, move, again }: SeatingProps) {
  const [taken, setTaken] = useState<string | null>(null);
  const by = new Map(people.map((p) => [p.member, p]));
  return (
    <>
      <Group justify="space-between" gap="xs">
        <span className={classes.hint} role="status">
          {taken
            ? `Where does ${by.get(taken)?.name ?? ''} sit?`
            : 'Drag somebody to another table, or press a name.'}
        </span>
        {way === 'lot' && <SmallButton onClick={again}>Another lot</SmallButton>}
      </Group>
      <Dragged
        seat={(member, table) => {
          const to = tables.findIndex((t) => t.name === table);
          if (to >= 0 && !tables[to]!.members.includes(member)) move(member, to);
        }}
      >
        <div className={classes.proposed}>
          {tables.map(({ name, members }, i) => (
            <TableTop
              key={name}
              name={name}
              taken={taken}
              sitters={members.map((m) => ({
                member: m,
                name: by.get(m)?.name ?? 'Somebody',
                here: by.get(m)?.here ?? false,
              }))}
              take={(m) => setTaken(taken === m ? null : m)}
              put={() => {
                move(taken!, i);
                setTaken(null);
              }}
            />
          ))}
        </div>
      </Dragged>
    </>
  );
}
