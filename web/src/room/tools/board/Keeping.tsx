import { NativeSelect } from '@mantine/core';
import { memo, useState } from 'react';
import {
  CLASS,
  GROUNDS,
  MOST_SIDES,
  ownerOf,
  sideOf,
  sidesOf,
  type Ground,
  type OnBoard,
} from '@nimble-bell/core/room';
import { SmallButton } from '../../../ui/SmallButton';
import { useInside, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import { Saving } from './Saving';
import classes from './board.module.css';

const GROUND_WORDS: Record<Ground, string> = {
  plain: 'Plain',
  squared: 'Squared',
  ruled: 'Ruled',
  axes: 'With axes',
};

const selectBoard = ({ room }: Inside) => room.board;
const selectLive = ({ room }: Inside) => room.bell.phase === 'live';

/** What is done with a board as a whole: its sides, its ground, clearing, saving; and giving everybody one of their own. */
export const Keeping = memo(function Keeping({ place, on }: { place: string; on: OnBoard }) {
  const { send } = useRoom();
  const teaching = useTeaching();
  const live = useInside(selectLive);
  const board = useInside(selectBoard, Object.is);
  const [open, setOpen] = useState(false);
  const side = sideOf(board, place);
  const sides = sidesOf(board, place);
  const at = ownerOf(place) === null ? {} : { at: place };
  const keeps = teaching && live;
  const cleared = (board.cleared[place]?.length ?? 0) > 0;
  return (
    <>
      <div className={classes.row} role="group" aria-label="The whole board">
        {!keeps && sides > 1 && <span>Side {side}</span>}
        {keeps && on.marks.length > 0 && (
          <SmallButton onClick={() => void send({ type: 'clearBoard', ...at })}>Clear the board</SmallButton>
        )}
        {keeps && on.marks.length === 0 && cleared && (
          <SmallButton apart onClick={() => void send({ type: 'undoClearing', ...at })}>
            Put back what was cleared
          </SmallButton>
        )}
        <SmallButton aria-expanded={open} onClick={() => setOpen(!open)}>
          {keeps ? 'More' : 'Save'}
        </SmallButton>
      </div>
      {open && (
        <div className={classes.more} role="group" aria-label="More of the board">
          {keeps && (
            <>
              <NativeSelect
                size="xs"
                aria-label="Which side"
                value={side}
                data={Array.from({ length: Math.min(MOST_SIDES, sides + 1) }, (_, i) => ({
                  value: String(i + 1),
                  label: i < sides ? `Side ${i + 1} of ${sides}` : 'Another side',
                }))}
                onChange={(e) => void send({ type: 'turnBoard', side: Number(e.currentTarget.value), ...at })}
              />
              <NativeSelect
                size="xs"
                aria-label="Ground"
                value={on.ground}
                data={GROUNDS.map((value) => ({ value, label: GROUND_WORDS[value] }))}
                onChange={(e) =>
                  void send({ type: 'layGround', ground: e.currentTarget.value as Ground, ...at })
                }
              />
              {place === CLASS && <OwnBoards given={board.given} />}
            </>
          )}
          <Saving board={board} place={place} sides={sides} side={side} />
        </div>
      )}
    </>
  );
});

function OwnBoards({ given }: { given: boolean }) {
  const { send } = useRoom();
  return (
    <SmallButton aria-pressed={given} onClick={() => void send({ type: 'giveBoards', given: !given })}>
      {given ? 'Put their own boards away' : 'A board for each'}
    </SmallButton>
  );
}
