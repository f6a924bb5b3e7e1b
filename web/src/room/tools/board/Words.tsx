import { NativeSelect, TextInput } from '@mantine/core';
import { useState, type KeyboardEvent } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import type { PutText } from '@nimble-bell/core/room';
import { useRoom } from '../../live/useRoom';
import { freeIn, PLACES } from './lettering';
import classes from './board.module.css';

/** Words for the board: written, and put in a place that has a name. No pointer is needed. */
export function Words({ texts, colour }: { texts: readonly PutText[]; colour: Stroke['colour'] }) {
  const { send } = useRoom();
  const [text, setText] = useState('');
  const [where, setWhere] = useState(PLACES[0]!.name);
  const put = async () => {
    const words = text.trim();
    if (!words) return;
    setText('');
    if (!(await send({ type: 'putText', text: { text: words, at: freeIn(where, texts), colour } })))
      setText(words);
  };
  const press = (e: KeyboardEvent) => {
    if (e.key !== 'Enter') return;
    e.preventDefault();
    void put();
  };
  return (
    <div className={classes.words}>
      <TextInput
        size="xs"
        aria-label="Words for the board"
        placeholder="Words, and Enter"
        maxLength={200}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        onKeyDown={press}
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
