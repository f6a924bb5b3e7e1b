import { useState } from 'react';
import type { Message } from '@nimble-bell/core/room';
import { useRoom, useTeaching } from '../../live/useRoom';
import classes from './talk.module.css';

/** What one does with a message: answers it; who teaches keeps it as a question, or takes it back. */
export function Acts({ message, answer }: { message: Message; answer: () => void }) {
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
        aria-label="What to do with this message"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        …
      </button>
      {open && (
        <span className={classes.acts}>
          {acts.map(([word, act]) => (
            <button
              key={word}
              type="button"
              className={classes.small}
              onClick={() => {
                setOpen(false);
                act();
              }}
            >
              {word}
            </button>
          ))}
        </span>
      )}
    </>
  );
}
