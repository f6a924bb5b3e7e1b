import { Anchor, Text, VisuallyHidden } from '@mantine/core';
import type { WrittenInfo } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { Linked } from '../ui/Linked';
import classes from './written.module.css';

interface WrittenListProps {
  written: readonly WrittenInfo[];
  me: string;
  zone: string;
  /** Null where one does not answer to one alone. */
  answer?: ((one: WrittenInfo) => void) | null;
}

const toWords = ({ addressee: to, toName }: WrittenInfo, me: string) =>
  to.to === 'class'
    ? ''
    : to.to === 'teachers'
      ? 'to the teachers'
      : to.member === me
        ? 'to you'
        : `to ${toName ?? 'somebody'}`;

/** What was written, the oldest first. */
export const WrittenList = ({ written, me, zone, answer = null }: WrittenListProps) => (
  <div role="list" className={classes.list}>
    {written.map((w) => (
      <article key={w.id} role="listitem" className={classes.one} data-to={w.addressee.to}>
        <header>
          <strong>{w.from === me ? 'You' : w.name}</strong>
          {w.role !== 'student' && w.from !== me && <em>{w.role}</em>}
          <span>{toWords(w, me)}</span>
          <time>{instantWords(w.at, zone)}</time>
        </header>
        <Text className={classes.text}>
          <Linked text={w.text} />
        </Text>
        {answer && w.from !== me && w.addressee.to !== 'class' && (
          <Anchor component="button" type="button" size="sm" onClick={() => answer(w)}>
            Answer {w.name} alone
            <VisuallyHidden>: {w.text.slice(0, 40)}</VisuallyHidden>
          </Anchor>
        )}
      </article>
    ))}
  </div>
);
