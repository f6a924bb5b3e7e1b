import { useMemo, useState } from 'react';
import { CLASS, onBoard, type Laid, type RoomState } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { SmallButton } from '../../../ui/SmallButton';
import { nameFrom, useInside, useMe, usePlace, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import { useHeard } from '../../live/useHeard';
import stage from '../../frame/stage.module.css';
import { Surface } from '../board/Surface';
import { Dragged, TableTop, type Sitter } from './TableTop';
import classes from './tables.module.css';

const selectLaid = ({ room }: Inside) => room.tables.laid;
const selectBoard = ({ room }: Inside) => room.board;
const selectPeople = ({ room, info }: Inside) => ({ people: room.presence.people, info });
const samePeople = (a: ReturnType<typeof selectPeople>, b: ReturnType<typeof selectPeople>) =>
  a.people === b.people && a.info === b.info;

/** All tables at once: for whoever teaches, to look after them; for whoever has none yet, to choose one. */
export default function TablesStage() {
  const laid = useInside(selectLaid, Object.is);
  const teaching = useTeaching();
  const place = usePlace();
  if (!laid)
    return (
      <div className={stage.stageEmpty}>
        <p>The class is together.</p>
      </div>
    );
  if (teaching) return <Looking laid={laid} at={place} />;
  if (laid.choose) return <Choosing laid={laid} at={place} />;
  return (
    <div className={stage.stageEmpty}>
      <p>The others are at their tables. You stay in the class for now.</p>
    </div>
  );
}

/** Everybody who sits at a table, whoever is there, and whoever looks after it just now. */
function useSitters(speaks: Pick<ReadonlySet<string>, 'has'>) {
  const { people, info } = useInside(selectPeople, samePeople);
  return (place: string, members: readonly string[]): Sitter[] => {
    const sitter = (member: string): Sitter => ({
      member,
      name: nameFrom({ room: { presence: { people } } as RoomState, info }, member),
      here: (people[member]?.present ?? false) && people[member]?.place === place,
      speaks: speaks.has(member),
      teaches: teaches(people[member]?.role ?? 'student'),
    });
    const visiting = Object.values(people).filter(
      (o) => o.present && o.place === place && !members.includes(o.member) && o.role !== 'observer',
    );
    return [...members, ...visiting.map((o) => o.member)].map(sitter);
  };
}

interface Props {
  laid: Laid;
  at: string;
}

const IN_CLASS = 'In the class';

function Looking({ laid, at }: Props) {
  const { send } = useRoom();
  const heard = useHeard();
  const sittersAt = useSitters(heard);
  const [taken, setTaken] = useState<string | null>(null);
  const take = (m: string) => setTaken(taken === m ? null : m);
  const seat = (member: string, table: string) => {
    const place = table === IN_CLASS ? CLASS : laid.tables.find((t) => t.name === table)?.place;
    if (place) void send({ type: 'seatAt', member, place });
    setTaken(null);
  };
  const calls = laid.calls.map((c) => c.place);
  return (
    <div className={classes.stage} data-own-height>
      <p className={classes.hint} role="status">
        {taken ? 'Press where they sit from now on.' : 'Drag somebody to another table, or press a name.'}
      </p>
      <Dragged seat={seat}>
        <div className={classes.all}>
          {laid.tables.map(({ place, name, members }) => {
            const turn = calls.indexOf(place);
            return (
              <TableTop
                key={place}
                {...{ name, taken, take }}
                sitters={sittersAt(place, members)}
                put={() => seat(taken!, name)}
                asks={turn >= 0}
              >
                {turn >= 0 && (
                  <span className={classes.asks}>{turn === 0 ? 'Asks for you' : `Asks, ${turn + 1}.`}</span>
                )}
                <Thumbnail place={place} />
                {at === place ? (
                  <SmallButton onClick={() => void send({ type: 'goTo', place: CLASS })}>
                    Leave it
                  </SmallButton>
                ) : (
                  <SmallButton
                    aria-label={`Go to ${name}`}
                    onClick={() => void send({ type: 'goTo', place })}
                  >
                    Go there
                  </SmallButton>
                )}
              </TableTop>
            );
          })}
          <TableTop
            name={IN_CLASS}
            {...{ taken, take }}
            sitters={sittersAt(CLASS, [])}
            put={() => seat(taken!, IN_CLASS)}
          />
        </div>
      </Dragged>
    </div>
  );
}

/** What a table has drawn by now, small. */
function Thumbnail({ place }: { place: string }) {
  const board = useInside(selectBoard, Object.is);
  const on = useMemo(() => onBoard(board, place), [board, place]);
  if (on.marks.length === 0) return null;
  return (
    <div className={classes.thumbnail}>
      <Surface on={on} nameOf={nobody} />
    </div>
  );
}
const nobody = () => 'somebody';

const NOBODY: ReadonlySet<string> = new Set();

function Choosing({ laid, at }: Props) {
  const { send } = useRoom();
  const { member: me } = useMe();
  const sittersAt = useSitters(NOBODY);
  return (
    <div className={classes.stage} data-own-height>
      <div className={classes.all}>
        {laid.tables.map(({ place, name, members }) => (
          <TableTop key={place} name={name} taken={null} sitters={sittersAt(place, members)}>
            {at === place || members.includes(me) ? (
              <span className={classes.hint}>You sit here.</span>
            ) : (
              <SmallButton
                apart={at === CLASS}
                aria-label={`Sit at ${name}`}
                onClick={() => void send({ type: 'goTo', place })}
              >
                Sit here
              </SmallButton>
            )}
          </TableTop>
        ))}
      </div>
    </div>
  );
}
