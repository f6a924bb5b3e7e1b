import { TextInput } from '@mantine/core';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { LONGEST_LINE, type CaptionLine } from '@nimble-bell/core/room';
import { useInside, useRoom, type Inside } from '../../live/useRoom';
import { cutFrom } from './cutFrom';
import classes from './captions.module.css';

/** What is being written is told so often, ms. */
const TOLD_MS = 400;

const select = ({ room }: Inside) => room.captions.lines;

/**
 * Where one writes down what is said: a line goes by Enter, at the end of a sentence, or when it is long. Arrow up takes
 * the line before, to be mended; with nothing in it that line is taken away.
 */
export default function CaptionDesk() {
  const { send, connection } = useRoom();
  const lines = useInside(select, Object.is);
  const [text, setText] = useState('');
  const [mended, setMended] = useState<CaptionLine | null>(null);
  const told = useRef(0);
  const tell = (begun: string) => {
    const now = performance.now();
    if (begun && now - told.current < TOLD_MS) return;
    told.current = now;
    connection.signal({ what: 'captioning', text: begun });
  };
  useEffect(() => () => connection.signal({ what: 'captioning', text: '' }), [connection]);
  const say = (line: string) => {
    tell('');
    if (mended) void send({ type: 'caption', text: line.trim(), instead: mended.seq });
    else if (line.trim()) void send({ type: 'caption', text: line.trim() });
    setMended(null);
  };
  const type = (typed: string) => {
    const { lines: whole, rest } = mended ? { lines: [], rest: typed } : cutFrom(typed);
    whole.forEach(say);
    setText(rest);
    if (!mended) tell(rest);
  };
  const take = (step: -1 | 1) => {
    const at = mended ? lines.findIndex((l) => l.seq === mended.seq) : lines.length;
    const next = lines[at + step] ?? null;
    setMended(next);
    setText(next?.text ?? '');
  };
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.key === 'Enter') {
      e.preventDefault();
      say(text);
      setText('');
    } else if (e.key === 'ArrowUp' && (mended || !text)) {
      e.preventDefault();
      if (!mended || lines[0]?.seq !== mended.seq) take(-1);
    } else if (e.key === 'ArrowDown' && mended) {
      e.preventDefault();
      take(1);
    } else if (e.key === 'Escape' && mended) {
      e.preventDefault();
      setMended(null);
      setText('');
    }
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
