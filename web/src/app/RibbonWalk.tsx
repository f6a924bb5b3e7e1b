import { useRef, useState, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import type { SessionInfo } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { ARROWS } from '../ui/arrows';
import classes from './ribbon.module.css';

interface RibbonWalkProps {
  course: string;
  zone: string;
  sessions: readonly SessionInfo[];
  findings: ReadonlyMap<string, string>;
  /** The session that one would look for first: the next one. */
  from: number;
}

/** The ribbon for whoever walks it: its sessions as a list, one stop of the Tab key, arrows inside, seen while it has focus. */
export function RibbonWalk({ course, zone, sessions, findings, from }: RibbonWalkProps) {
  const list = useRef<HTMLOListElement>(null);
  const [walked, setWalked] = useState<number | null>(null);
  const at = Math.max(0, Math.min(walked ?? from, sessions.length - 1));
  const onKey = (e: KeyboardEvent) => {
    const to =
      e.key === 'Home'
        ? 0
        : e.key === 'End'
          ? sessions.length - 1
          : ARROWS[e.key]
            ? at + ARROWS[e.key]!
            : null;
    if (to === null || !sessions[to]) return;
    e.preventDefault();
    setWalked(to);
    list.current?.querySelectorAll('a')[to]?.focus();
  };
  if (!sessions.length) return null;
  return (
    <ol ref={list} className={classes.walk} aria-label="Sessions of the term, arrows walk" onKeyDown={onKey}>
      {sessions.map((s, i) => (
        <li key={s.id}>
          <Link
            to={`/course/${course}/session/${s.id}`}
            tabIndex={i === at ? 0 : -1}
            onFocus={() => setWalked(i)}
          >
            {s.seriesTitle}, {instantWords(s.startsAt, zone)}: {s.state}
            {findings.has(s.id) && `. ${findings.get(s.id)}`}
          </Link>
        </li>
      ))}
    </ol>
  );
}
