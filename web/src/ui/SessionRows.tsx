import type { SessionInfo } from '@nimble-bell/core/api';
import { durationWords, instantWords } from '@nimble-bell/core/calendar';
import { SessionMark } from './SessionMark';
import classes from './parts.module.css';

/** Sessions ahead, a line each, in the reader's zone; a state that is out of the ordinary is said. */
export function SessionRows({ sessions, zone }: { sessions: readonly SessionInfo[]; zone: string }) {
  return (
    <ol className={classes.rows}>
      {sessions.map((s) => (
        <li key={s.id}>
          <SessionMark state={s.state} />
          <span className="figures">{instantWords(s.startsAt, zone)}</span>
          <span>
            {s.seriesTitle}
            {s.title && `: ${s.title}`}
          </span>
          <span className={classes.last}>
            {s.state === 'planned' ? durationWords(s.minutes) : s.state}
            {s.reason && `: ${s.reason}`}
          </span>
        </li>
      ))}
    </ol>
  );
}
