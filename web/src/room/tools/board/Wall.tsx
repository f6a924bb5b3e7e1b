import { memo, useState } from 'react';
import {
  groundOf,
  ownPlace,
  sideOf,
  type BoardState,
  type Ground,
  type Mark,
  type OnBoard,
} from '@nimble-bell/core/room';
import { SmallButton } from '../../../ui/SmallButton';
import { seated, useInside, useRoom, type Inside } from '../../live/useRoom';
import { DrawingBoard } from './DrawingBoard';
import { Surface } from './Surface';
import classes from './board.module.css';

const selectBoard = ({ room }: Inside) => room.board;
/** Students who are here, and those who have drawn; in the order of the list. */
const selectOwners = ({ room, info }: Inside) => {
  const drew = new Set(room.board.marks.map((m) => m.place));
  return seated({ room, info })
    .filter((p) => p.role === 'student' || p.role === 'guest')
    .filter((p) => room.presence.people[p.member]?.present || drew.has(ownPlace(p.member)))
    .map(({ member, name }) => ({ member, name }));
};

/** Everybody's own board at once, for those who teach: one is opened, and shown to the class with the name or without. */
export default function Wall() {
  const board = useInside(selectBoard, Object.is);
  const owners = useInside(selectOwners);
  const [opened, setOpened] = useState<string | null>(null);
  const open = owners.find((o) => o.member === opened);
  if (open)
    return (
      <>
        <div
          className={`${classes.head} ${classes.which}`}
          role="group"
          aria-label={`The board of ${open.name}`}
        >
          <strong>{open.name}</strong>
          <SmallButton onClick={() => setOpened(null)}>To all boards</SmallButton>
          <ShowIt member={open.member} />
        </div>
        <DrawingBoard key={open.member} place={ownPlace(open.member)} />
      </>
    );
  const boards = sidesBefore(board);
  const drew = owners.filter((o) => boards.has(ownPlace(o.member))).length;
  return (
    <div className={classes.wall}>
      <p className={classes.hint} role="status">
        {owners.length ? `${drew} of ${owners.length} have drawn something.` : 'No student is here yet.'}
      </p>
      <ul>
        {owners.map((o) => (
          <li key={o.member}>
            <Small on={boards.get(ownPlace(o.member)) ?? NOTHING} {...o} open={setOpened} />
          </li>
        ))}
      </ul>
    </div>
  );
}

const NOTHING: OnBoard = { marks: [], ground: 'plain' };

/** The side of each board that is before whoever has it, by place: read once for all of them. */
function sidesBefore(board: BoardState): ReadonlyMap<string, OnBoard> {
  const sides = new Map<string, { marks: Mark[]; ground: Ground }>();
  for (const mark of board.marks) {
    const { place, side } = mark;
    if (side !== sideOf(board, place)) continue;
    const on = sides.get(place) ?? { marks: [], ground: groundOf(board, place, side) };
    on.marks.push(mark);
    sides.set(place, on);
  }
  return sides;
}

interface SmallProps {
  on: OnBoard;
  member: string;
  name: string;
  open: (member: string) => void;
}

/** One board, small: drawn again when something on it is another, and not with every stroke of the class. */
const Small = memo(
  function Small({ on, member, name, open }: SmallProps) {
    return (
      <>
        <button
          type="button"
          className={classes.small}
          onClick={() => open(member)}
          aria-label={`Open the board of ${name}`}
        >
          {on.marks.length ? <Surface on={on} nameOf={nobody} /> : <span>Nothing yet</span>}
        </button>
        <span className={classes.smallName}>{name}</span>
        {on.marks.length > 0 && <ShowIt member={member} of={name} />}
      </>
    );
  },
  (a, b) =>
    a.name === b.name &&
    a.on.ground === b.on.ground &&
    a.on.marks.length === b.on.marks.length &&
    a.on.marks.every((m, i) => m === b.on.marks[i]),
);
const nobody = () => 'somebody';

function ShowIt({ member, of }: { member: string; of?: string }) {
  const { send } = useRoom();
  const show = (named: boolean) => void send({ type: 'showWork', place: ownPlace(member), named });
  return (
    <span className={classes.row}>
      <SmallButton aria-label={of && `Show the board of ${of} to all`} onClick={() => show(true)}>
        Show to all
      </SmallButton>
      <SmallButton aria-label={of && `Show the board of ${of} without the name`} onClick={() => show(false)}>
        Without the name
      </SmallButton>
    </span>
  );
}
