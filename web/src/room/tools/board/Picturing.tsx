import { Button, FileButton, NativeSelect, TextInput } from '@mantine/core';
import { useEffect, useEffectEvent, useState } from 'react';
import type { Picture } from '@nimble-bell/core/api';
import { HEIGHT, WIDTH } from '@nimble-bell/core/board';
import { MOST_LETTERS } from '@nimble-bell/core/room';
import { asJpeg, NO_PICTURE, PICTURES, type Jpeg } from '../../../ui/asJpeg';
import { say } from '../../../app/notices';
import { SmallButton } from '../../../ui/SmallButton';
import classes from './board.module.css';

/** So large is a picture's longer side at most, pixels: it is still sharp on a board that fills a window. */
const SHARP = 1280;
const HEAD = 'data:image/jpeg;base64,';
const SIZES = { quarter: 'A quarter of it', half: 'Half of it', whole: 'All of the board' };
type Size = keyof typeof SIZES;
const SHARES: Record<Size, number> = { quarter: 0.25, half: 0.5, whole: 1 };

/** Where a picture of this shape stands, in the middle and as large as its share of the board allows. */
export function standing({ width, height }: Omit<Jpeg, 'data'>, share: number): Pick<Picture, 'from' | 'to'> {
  const scale = share * Math.min(WIDTH / width, HEIGHT / height);
  const half = [(width * scale) / WIDTH / 2, (height * scale) / HEIGHT / 2] as const;
  const rounded = (n: number) => Math.round(Math.min(1, Math.max(0, n)) * 10_000) / 10_000;
  return {
    from: [rounded(0.5 - half[0]), rounded(0.5 - half[1])],
    to: [rounded(0.5 + half[0]), rounded(0.5 + half[1])],
  };
}

const nameOf = (file: File) => file.name.replace(/\.\w+$/, '').slice(0, 120);

/** Takes a picture that is pasted anywhere on the page. */
function usePasted(take: (file: File) => void) {
  const taken = useEffectEvent(take);
  useEffect(() => {
    const onPaste = (e: ClipboardEvent) => {
      const file = [...(e.clipboardData?.files ?? [])].find((f) => f.type.startsWith('image/'));
      if (!file) return;
      e.preventDefault();
      taken(file);
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, []);
}

/** A picture of one's own for the board: from a file, or pasted; what is to be seen on it is said with it. */
export function Picturing({ put }: { put: (picture: Picture) => Promise<boolean> }) {
  const [taken, setTaken] = useState<Jpeg | null>(null);
  const [words, setWords] = useState('');
  const [size, setSize] = useState<Size>('half');
  const take = async (file: File | null) => {
    if (!file) return;
    const scale = ({ width, height }: { width: number; height: number }) => SHARP / Math.max(width, height);
    const jpeg = await asJpeg(file, { scale, most: MOST_LETTERS + HEAD.length }).catch(() => null);
    if (!jpeg) return say(NO_PICTURE, 'fault');
    setTaken(jpeg);
    setWords(nameOf(file));
  };
  usePasted((file) => void take(file));
  if (!taken)
    return (
      <FileButton accept={PICTURES} onChange={(file) => void take(file)}>
        {(props) => <SmallButton {...props}>A picture</SmallButton>}
      </FileButton>
    );
  return (
    <form
      className={classes.more}
      aria-label="A picture for the board"
      onSubmit={(e) => {
        e.preventDefault();
        const jpeg = taken.data.slice(HEAD.length);
        void put({ jpeg, words, ...standing(taken, SHARES[size]) }).then((done) => done && setTaken(null));
      }}
    >
      <img src={taken.data} alt="" className={classes.taken} />
      <TextInput
        size="xs"
        aria-label="What is to be seen on it"
        placeholder="What is to be seen on it"
        required
        maxLength={120}
        value={words}
        onChange={(e) => setWords(e.currentTarget.value)}
        autoFocus
      />
      <NativeSelect
        size="xs"
        aria-label="How large"
        data={Object.entries(SIZES).map(([value, label]) => ({ value, label }))}
        value={size}
        onChange={(e) => setSize(e.currentTarget.value as Size)}
      />
      <Button size="compact-sm" type="submit">
        Put it on
      </Button>
      <SmallButton onClick={() => setTaken(null)}>Not after all</SmallButton>
    </form>
  );
}
