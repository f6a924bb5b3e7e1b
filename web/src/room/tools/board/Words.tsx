import { Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { BoardText, Stroke } from '@nimble-bell/core/api';
import { freeIn, PLACES } from '@nimble-bell/core/board';
import type { OnBoard, PutText } from '@nimble-bell/core/room';
import { useLine } from '../../controls/useLine';
import classes from './board.module.css';

interface Props {
  on: OnBoard;
  put: (text: BoardText) => Promise<boolean>;
  colour: Stroke['colour'];
}

/** Words for the board: written, and put in a place that has a name. No pointer is needed; they are moved afterwards. */
export function Words({ on, put, colour }: Props) {
  const [where, setWhere] = useState(PLACES[0]!.name);
  const [slip, setSlip] = useState(false);
  // Where they stand, and on what, from when one first writes: it does not come and go under a finger.
  const [writes, setWrites] = useState(false);
  const { field } = useLine((text) => {
    const texts = on.marks.filter((m): m is PutText => m.kind === 'text');
    return put({ text, at: freeIn(where, texts), colour, ...(slip ? { slip } : {}) });
  });
  return (
    <div className={classes.words} onFocus={() => setWrites(true)}>
      <TextInput
        size="xs"
        aria-label="Words for the board"
        placeholder="Words, and Enter"
        maxLength={200}
        {...field}
      />
      {writes && (
        <>
          <NativeSelect
            size="xs"
            aria-label="Where the words stand"
            data={PLACES.map((p) => p.name)}
            value={where}
            onChange={(e) => setWhere(e.currentTarget.value)}
          />
          <Checkbox
            size="xs"
            label="On a slip"
            checked={slip}
            onChange={(e) => setSlip(e.currentTarget.checked)}
          />
        </>
      )}
    </div>
  );
}
