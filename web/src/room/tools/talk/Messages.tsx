import type { ReactNode } from 'react';
import { clockWords } from '@nimble-bell/core/calendar';
import type { Message } from '@nimble-bell/core/room';
import classes from './talk.module.css';

interface Props {
  messages: readonly Message[];
  me: string | null;
  zone: string;
  nameOf: (member: string) => string;
  /** A file that goes with one of them. */
  files?: (id: string) => ReactNode;
}

/** What was written, in class and in a replay. */
export function Messages({ messages, me, zone, nameOf, files }: Props) {
  return messages.map((m) => (
    <article key={m.seq} className={classes.message} data-to={m.addressee.to} data-own={m.from === me}>
      <header>
        <strong>{m.from === me ? 'You' : nameOf(m.from)}</strong>
        {m.addressee.to === 'teachers' && <span>to the teachers</span>}
        {m.addressee.to === 'member' && (
          <span>to {m.addressee.member === me ? 'you' : nameOf(m.addressee.member)}</span>
        )}
        <time>{clockWords(m.at, zone)}</time>
      </header>
      <p>{m.text}</p>
      {m.file && files?.(m.file)}
    </article>
  ));
}
