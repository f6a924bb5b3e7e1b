import { useState, type KeyboardEvent } from 'react';

/**
 * A line that one types and Enter sends: it is gone from the field once it is on its way, and there again where it was
 * not taken. `send` says whether it was.
 */
export function useLine(send: (text: string) => Promise<boolean>) {
  const [text, setText] = useState('');
  const say = async () => {
    const words = text.trim();
    if (!words) return;
    setText('');
    // What is typed meanwhile stays.
    if (!(await send(words))) setText((typed) => typed || words);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.key !== 'Enter' || e.shiftKey) return;
    e.preventDefault();
    void say();
  };
  return {
    text,
    say,
    clear: () => setText(''),
    /** For the field. */
    field: {
      value: text,
      onChange: (e: { currentTarget: { value: string } }) => setText(e.currentTarget.value),
      onKeyDown,
    },
  };
}
