import { useState } from 'react';
import { onBoard, type BoardState } from '@nimble-bell/core/room';
import { say } from '../../../app/notices';
import { SmallButton } from '../../../ui/SmallButton';
import { useInfo } from '../../live/useRoom';

interface Props {
  board: BoardState;
  place: string;
  side: number;
  sides: number;
}

/** The board as a file: the side one sees, or all of them as the pages of one. */
export function Saving({ board, place, side, sides }: Props) {
  const { session } = useInfo();
  const [busy, setBusy] = useState(false);
  const save = async (as: 'png' | 'svg' | 'pdf') => {
    setBusy(true);
    try {
      const { saveBoard } = await import('./files');
      const wanted = as === 'pdf' ? Array.from({ length: sides }, (_, i) => i + 1) : [side];
      const all = wanted.map((s) => onBoard(board, place, s));
      await saveBoard(all, as, `${session.title}, board`);
    } catch {
      say('The board could not be saved. Try again in a moment.', 'fault');
    }
    setBusy(false);
  };
  return (
    <>
      <SmallButton disabled={busy} onClick={() => void save('png')}>
        Save a picture
      </SmallButton>
      <SmallButton disabled={busy} onClick={() => void save('svg')}>
        A drawing
      </SmallButton>
      <SmallButton disabled={busy} onClick={() => void save('pdf')}>
        {sides > 1 ? `All ${sides} sides, a PDF` : 'A PDF'}
      </SmallButton>
    </>
  );
}
