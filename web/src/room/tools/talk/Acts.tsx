import { useState, type KeyboardEvent } from 'react';
import type { Message } from '@nimble-bell/core/room';
import { SmallButton } from '../../../ui/SmallButton';
import { useRoom, useTeaching } from '../../live/useRoom';
import classes from './talk.module.css';

interface Props {
  message: Message;
  /** The last of all: the one stop by Tab, from which arrows lead to the others. */
  last: boolean;
  answer: () => void;
}

/** From one message's button to the next or the one before, by arrows: of hundreds one is a stop. */
export function toNext(e: KeyboardEvent<HTMLElement>) {
  if (e.key !== 'ArrowUp' && e.key !== 'ArrowDown') return;
  const all = [...e.currentTarget.querySelectorAll<HTMLElement>('[data-more]')];
  const at = all.indexOf(document.activeElement as HTMLElement);
  const next = at < 0 ? undefined : all[at + (e.key === 'ArrowUp' ? -1 : 1)];
  if (!next) return;
  e.preventDefault();
  next.focus();
}

/** What one does with a message: answers it; who teaches keeps it as a question, or takes it back. */
export function Acts({ message, last, answer }: Props) {
  const { send } = useRoom();
  const teaching = useTeaching();
  const [open, setOpen] = useState(false);
  const { seq, kept, unsaid } = message;
  if (unsaid) return null;
  const keep = (as: 'later' | 'answered' | 'none') => () => {
    setOpen(false);
    void send({ type: 'keepQuestion', message: seq, as });
  };
  const acts: [word: string, act: () => void][] = [['Answer', answer]];
  if (teaching) {
    if (kept !== 'later') acts.push(['Keep for later', keep('later')]);
    if (kept !== 'answered') acts.push(['Was answered', keep('answered')]);
    if (kept) acts.push(['Is no question', keep('none')]);
    acts.push(['Take back', () => void send({ type: 'unsay', message: seq })]);
  }
  return (
    <>
      <button
        type="button"
        className={classes.more}
        data-more
        tabIndex={last ? 0 : -1}
        aria-label="What to do with this message"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        …
      </button>
      {open && (
        <span className={classes.acts}>
          {acts.map(([word, act]) => (
            <SmallButton
              key={word}
              onClick={() => {
                setOpen(false);
                act();
              }}
            >
              {word}
            </SmallButton>
          ))}
        </span>
      )}
    </>
  );
}
