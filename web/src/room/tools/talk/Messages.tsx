import type { ReactNode } from 'react';
import { clockWords } from '@nimble-bell/core/calendar';
import type { Message } from '@nimble-bell/core/room';
import { Linked } from '../../../ui/Linked';
import classes from './talk.module.css';

interface Props {
  messages: readonly Message[];
  me: string | null;
  zone: string;
  nameOf: (member: string) => string;
  /** A file that goes with one of them. */
  files?: (id: string) => ReactNode;
  /** What one does with one of them. */
  acts?: (message: Message, last: boolean) => ReactNode;
  /** The first that one has not read. */
  newFrom?: number | null;
}

const KEPT = { later: 'for later', answered: 'answered' } as const;

/** What was written, in class and in a replay. */
export function Messages({ messages, me, zone, nameOf, files, acts, newFrom = null }: Props) {
  return messages.map((m, i) => (
    <article
      key={m.seq}
      className={classes.message}
      data-to={m.addressee.to}
      data-own={m.from === me}
      data-new={m.seq === newFrom}
      data-acts={acts !== undefined}
    >
      <header>
        <strong>{m.from === me ? 'You' : nameOf(m.from)}</strong>
        {m.addressee.to === 'teachers' && <span>to the teachers</span>}
        {m.addressee.to === 'member' && (
          <span>to {m.addressee.member === me ? 'you' : nameOf(m.addressee.member)}</span>
        )}
        {m.kept && <em className={classes.kept}>{KEPT[m.kept]}</em>}
        <time>{clockWords(m.at, zone)}</time>
      </header>
      {m.reply && <Answered of={messages.find((o) => o.seq === m.reply)} nameOf={nameOf} />}
      {m.unsaid ? (
        <p className={classes.gone}>Taken back by a teacher.</p>
      ) : (
        <p dir="auto" data-call={m.call}>
          <Linked text={m.text} />
        </p>
      )}
      {m.file && files?.(m.file)}
      {acts?.(m, i === messages.length - 1)}
    </article>
  ));
}

/** The message that is answered, where one has it. */
function Answered({ of, nameOf }: { of: Message | undefined; nameOf: (member: string) => string }) {
  if (!of) return null;
  return (
    <p className={classes.answered} dir="auto">
      {nameOf(of.from)}: {of.unsaid ? 'taken back' : of.text}
    </p>
  );
}
