import { IconCheck, IconCircleDashed } from '@tabler/icons-react';
import type { RehearsalInfo } from '@nimble-bell/core/api';
import strip from '../tools/strip.module.css';
import classes from './rehearsal.module.css';

/** What was tried, and what was not yet, in the order of a lesson. */
export function TriedList({ tried }: Pick<RehearsalInfo, 'tried'>) {
  return (
    <ul className={classes.tried} aria-label="What to try">
      {tried.map(({ id, words, done }) => (
        <li key={id} data-done={done}>
          {done ? <IconCheck size={18} aria-hidden /> : <IconCircleDashed size={18} aria-hidden />}
          <span>
            {words}
            <span className={strip.unseen}>{done ? ', tried' : ', not yet'}</span>
          </span>
        </li>
      ))}
    </ul>
  );
}
