import { useMemo, useState } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import { onBoard, ownerOf } from '@nimble-bell/core/room';
import { useRefusal } from '../../controls/useRefusal';
import { useInside, useMay, useMe, useNameOf, useTeaching, type Inside } from '../../live/useRoom';
import { SmallButton } from '../../../ui/SmallButton';
import { Keeping } from './Keeping';
import { Pens } from './Pens';
import { Picturing } from './Picturing';
import { NEAREST } from './pinched';
import { Surface } from './Surface';
import { useActs } from './useActs';
import { useHand, type Tool } from './useHand';
import { useNearness, type Nearness } from './useNearness';
import { usePens } from './usePens';
import { Words } from './Words';
import classes from './board.module.css';

const selectBoard = ({ room }: Inside) => room.board;

/** A board that one may draw on: of the place where one is, or somebody's own. */
export function DrawingBoard({ place }: { place: string }) {
  const board = useInside(selectBoard, Object.is);
  const on = useMemo(() => onBoard(board, place), [board, place]);
  const { member: me } = useMe();
  const nameOf = useNameOf();
  const teaching = useTeaching();
  const own = ownerOf(place) !== null;
  const may = useMay('draw');
  const refusal = useRefusal('draw');
  const attaches = useMay('attachFiles').allowed;
  const allowed = own || may.allowed;
  const [tool, setTool] = useState<Tool>('pen');
  const nearness = useNearness();
  const [colour, setColour] = useState<Stroke['colour']>('ink');
  const acts = useActs(place, on);
  const mine = useMemo(() => on.marks.filter((m) => teaching || m.by === me), [on.marks, teaching, me]);
  const pens = usePens(!own);
  const hand = useHand({ tool, colour, mine, acts, at: pens.tell });
  return (
    <>
      <Surface on={on} nameOf={nameOf} hand={allowed ? hand : null} pens={pens.others} nearness={nearness} />
      <div className={classes.boardTools} role="group" aria-label="The board’s tools">
        {allowed ? (
          <>
            <Pens {...{ tool, setTool, colour, setColour, acts, hand }} />
            <Words on={on} put={acts.putText} colour={colour} />
            {(own || attaches) && <Picturing put={acts.putPicture} />}
          </>
        ) : (
          <span>{refusal}</span>
        )}
        <Keeping place={place} on={on} />
        <HowNear nearness={nearness} />
      </div>
    </>
  );
}

/** How near one is to the board, for one's own eyes. */
function HowNear({ nearness: { near, to } }: { nearness: Nearness }) {
  return (
    <div className={classes.row} role="group" aria-label="How near">
      <SmallButton disabled={near === NEAREST} onClick={() => to(near * 2)}>
        Closer
      </SmallButton>
      {near > 1 && <SmallButton onClick={() => to(near / 2)}>Further off</SmallButton>}
    </div>
  );
}
