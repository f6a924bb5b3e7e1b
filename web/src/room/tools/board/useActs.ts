import { useState } from 'react';
import { moved, onBoard, ownerOf, type Mark, type OnBoard } from '@nimble-bell/core/room';
import type { BoardText, Picture, RoomCommand, Shape, Stroke } from '@nimble-bell/core/api';
import { useMe, useRoom } from '../../live/useRoom';

/** So much is taken back, one after the other. */
const STEPS = 50;

/** What one does to a board, and taking it back. */
export interface Acts {
  draw: (stroke: Stroke) => Promise<boolean>;
  putText: (text: BoardText) => Promise<boolean>;
  putShape: (shape: Shape) => Promise<boolean>;
  putPicture: (picture: Picture) => Promise<boolean>;
  takeOff: (marks: readonly Mark[]) => Promise<boolean>;
  shift: (marks: readonly Mark[], x: number, y: number) => Promise<boolean>;
  copy: (marks: readonly Mark[]) => Promise<boolean>;
  /** Takes back the last of it; null where there is nothing. */
  back: (() => void) | null;
}

/** A command that puts a mark on a board as it is. */
function putAgain(mark: Mark): RoomCommand {
  const { seq: _, by: __, place: ___, side: ____, ...what } = mark;
  if (what.kind === 'stroke') {
    const { kind: _kind, ...stroke } = what;
    return { type: 'draw', stroke };
  }
  const { kind, ...rest } = what;
  if (kind === 'picture') return { type: 'putPicture', picture: rest as Picture };
  return kind === 'text'
    ? { type: 'putText', text: rest as BoardText }
    : { type: 'putShape', shape: rest as Shape };
}

const COPY_BY = 0.03;

export function useActs(place: string, on: OnBoard): Acts {
  const { send, connection } = useRoom();
  const { member: me } = useMe();
  const at = ownerOf(place) === null ? {} : { at: place };
  const [steps, setSteps] = useState<readonly (() => Promise<boolean>)[]>([]);
  const asked = (command: RoomCommand) => send({ ...command, ...at } as RoomCommand);
  const did = (undo: () => Promise<boolean>) => setSteps((all) => [...all.slice(1 - STEPS), undo]);
  // What is taken back is of the board as it is by then.
  const newestOff = () => {
    const last = onBoard(connection.view.state!.board, place).marks.findLast((m) => m.by === me);
    return last ? asked({ type: 'takeOff', marks: [last.seq] }) : Promise.resolve(false);
  };
  const put = async (command: RoomCommand) => {
    const done = await asked(command);
    if (done) did(newestOff);
    return done;
  };
  const shift = async (marks: readonly Mark[], x: number, y: number) => {
    const of = marks.map((m) => m.seq);
    const done = await asked({ type: 'shift', marks: of, x, y });
    if (done) did(() => asked({ type: 'shift', marks: of, x: -x, y: -y }));
    return done;
  };
  const own = on.marks.some((m) => m.by === me);
  return {
    draw: (stroke) => put({ type: 'draw', stroke }),
    putText: (text) => put({ type: 'putText', text }),
    putShape: (shape) => put({ type: 'putShape', shape }),
    putPicture: (picture) => put({ type: 'putPicture', picture }),
    takeOff: async (marks) => {
      const of = marks.map((m) => m.seq);
      const done = await asked({ type: 'takeOff', marks: of });
      if (done) did(() => asked({ type: 'putBack', marks: of }));
      return done;
    },
    shift,
    copy: async (marks) => {
      for (const mark of marks) if (!(await put(putAgain(moved(mark, COPY_BY, COPY_BY))))) return false;
      return true;
    },
    back:
      steps.length || own
        ? () => {
            const undo = steps.at(-1) ?? newestOff;
            setSteps((all) => all.slice(0, -1));
            void undo();
          }
        : null,
  };
}
