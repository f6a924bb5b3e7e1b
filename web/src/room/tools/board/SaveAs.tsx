import { useState } from 'react';
import type { OnBoard } from '@nimble-bell/core/room';
import { say } from '../../../app/notices';
import { SmallButton } from '../../../ui/SmallButton';

interface Props {
  /** What stands on a side, 1 and up. */
  on: (side: number) => OnBoard;
  side: number;
  sides: number;
  /** What the file is called. */
  name: string;
}

/** A board as a file: the side one sees, or all of them as the pages of one. */
export function SaveAs({ on, side, sides, name }: Props) {
  const [busy, setBusy] = useState(false);
  const save = async (as: 'png' | 'svg' | 'pdf') => {
    setBusy(true);
    try {
      const { saveBoard } = await import('./files');
      const wanted = as === 'pdf' ? Array.from({ length: sides }, (_, i) => i + 1) : [side];
      await saveBoard(wanted.map(on), as, name);
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
