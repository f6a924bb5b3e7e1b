import { NativeSelect, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import type { PutText } from '@nimble-bell/core/room';
import { useLine } from '../../controls/useLine';
import { useRoom } from '../../live/useRoom';
import { freeIn, PLACES } from '@nimble-bell/core/board';
import classes from './board.module.css';

/** Words for the board: written, and put in a place that has a name. No pointer is needed. */
export function Words({ texts, colour }: { texts: readonly PutText[]; colour: Stroke['colour'] }) {
  const { send } = useRoom();
  const [where, setWhere] = useState(PLACES[0]!.name);
  const { field } = useLine((words) =>
    send({ type: 'putText', text: { text: words, at: freeIn(where, texts), colour } }),
  );
  return (
    <div className={classes.words}>
      <TextInput
        size="xs"
        aria-label="Words for the board"
        placeholder="Words, and Enter"
        maxLength={200}
        {...field}
      />
      <NativeSelect
        size="xs"
        aria-label="Where the words stand"
        data={PLACES.map((p) => p.name)}
        value={where}
        onChange={(e) => setWhere(e.currentTarget.value)}
      />
    </div>
  );
}
