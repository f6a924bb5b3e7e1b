import { TextInput } from '@mantine/core';
import { useCallback, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { LONGEST_LINE, placeOf, type CaptionLine } from '@nimble-bell/core/room';
import { useRoom, type Inside } from '../../live/useRoom';
import { cutFrom } from './cutFrom';
import classes from './captions.module.css';

/** What is being written is told so often, ms. */
const TOLD_MS = 400;

/** The lines of where one is. */
function linesHere({ room, info }: Pick<Inside, 'room' | 'info'>): CaptionLine[] {
  const here = placeOf(room, info.me.member);
  return room.captions.lines.filter((l) => l.place === here);
}

/** Tells what is being written, now and then and always the last of it; that nothing is any more, at once. */
function useTold(): (begun: string) => void {
  const { connection } = useRoom();
  const latest = useRef('');
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const say = useCallback(() => {
    timer.current = null;
    connection.signal({ what: 'captioning', text: latest.current });
  }, [connection]);
  useEffect(
    () => () => {
      latest.current = '';
      say();
    },
    [say],
  );
  return (begun) => {
    latest.current = begun;
    if (begun) timer.current ??= setTimeout(say, TOLD_MS);
    else {
      if (timer.current) clearTimeout(timer.current);
      say();
    }
  };
}

/** The line that one writes, or mends. */
function useWritten() {
  const { send, connection } = useRoom();
  /** The lines that are on their way. */
  const sending = useRef<Promise<unknown>>(null);
  const [text, setText] = useState('');
  const [mended, setMended] = useState<CaptionLine | null>(null);
  const tell = useTold();
  const open = (line: CaptionLine | null) => {
    setMended(line);
    setText(line?.text ?? '');
  };
  const say = (words: string) => {
    tell('');
    const line = words.trim();
    if (mended || line) {
      const sent = send({ type: 'caption', text: line, ...(mended ? { instead: mended.seq } : {}) });
      sending.current = sent;
      void sent.finally(() => (sending.current = sending.current === sent ? null : sending.current));
    }
    open(null);
  };
  const step = (by: -1 | 1) => {
    const { state, info } = connection.view;
    if (!state || !info) return;
    const lines = linesHere({ room: state, info });
    const at = mended ? lines.findIndex((l) => l.seq === mended.seq) : lines.length;
    open(lines[Math.max(0, at + by)] ?? null);
  };
  return {
    ...{ text, mended, open, say },
    type: (typed: string) => {
      if (mended) return setText(typed);
      const { lines: whole, rest } = cutFrom(typed);
      whole.forEach(say);
      setText(rest);
      tell(rest);
    },
    /** The line before, or after; past the last a new one. What is on its way yet is the one before. */
    take: (by: -1 | 1) => void (sending.current ? sending.current.then(() => step(by)) : step(by)),
  };
}

/**
 * Where one writes down what is said: a line goes by Enter, at the end of a sentence, or when it is long. Arrow up takes
 * the line before, to be mended; with nothing in it that line is taken away.
 */
export default function CaptionDesk() {
  const { text, mended, open, say, type, take } = useWritten();
  const keys: Record<string, (() => void) | false> = {
    Enter: () => say(text),
    ArrowUp: (mended !== null || !text) && (() => take(-1)),
    ArrowDown: mended !== null && (() => take(1)),
    Escape: mended !== null && (() => open(null)),
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const act = keys[e.key];
    if (!act) return;
    e.preventDefault();
    act();
  };
  return (
    <div className={classes.desk}>
      <TextInput
        label={mended ? 'Mend this line' : 'Captions: write what is said'}
        description={
          mended
            ? 'Enter puts it right; with nothing in it it is taken away; Escape leaves it.'
            : 'A line goes by Enter or at the end of a sentence. Arrow up mends the line before.'
        }
        maxLength={LONGEST_LINE}
        dir="auto"
        autoComplete="off"
        value={text}
        onChange={(e) => type(e.currentTarget.value)}
        onKeyDown={onKeyDown}
      />
    </div>
  );
}
