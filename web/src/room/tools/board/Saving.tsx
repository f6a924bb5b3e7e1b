import { onBoard, type BoardState } from '@nimble-bell/core/room';
import { useInfo } from '../../live/useRoom';
import { SaveAs } from './SaveAs';

interface Props {
  board: BoardState;
  place: string;
  side: number;
  sides: number;
}

/** The board that one sees, as a file. */
export function Saving({ board, place, side, sides }: Props) {
  const { session } = useInfo();
  return (
    <SaveAs {...{ side, sides }} on={(s) => onBoard(board, place, s)} name={`${session.title}, board`} />
  );
}
