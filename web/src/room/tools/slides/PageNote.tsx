import { Textarea } from '@mantine/core';
import { useState } from 'react';
import { useAsk } from '../../../app/api';
import { say } from '../../../app/notices';
import { useInfo } from '../../live/useRoom';
import classes from './slides.module.css';

interface Props {
  deck: string;
  page: number;
  text: string;
  kept: () => void;
}

/** What those who teach note to a page for themselves. */
export function PageNote({ deck, page, text, kept }: Props) {
  const ask = useAsk();
  const { session } = useInfo();
  const [value, setValue] = useState(text);
  const keep = async () => {
    if (value.trim() === text) return;
    try {
      await ask(`/sessions/${session.id}/decks/${deck}/notes/${page}`, 'PUT', { text: value });
      kept();
    } catch (error) {
      say((error as Error).message, 'fault');
    }
  };
  return (
    <div className={classes.noted}>
      <Textarea
        aria-label={`Your note to page ${page}`}
        placeholder="For those who teach alone. Kept when you go on."
        autosize
        minRows={1}
        maxRows={4}
        maxLength={4000}
        value={value}
        onChange={(e) => setValue(e.currentTarget.value)}
        onBlur={() => void keep()}
      />
    </div>
  );
}
