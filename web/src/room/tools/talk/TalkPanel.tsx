import { lazy, Suspense, useState } from 'react';
import type { MaterialInfo } from '@nimble-bell/core/api';
import type { Message } from '@nimble-bell/core/room';
import { useAsked } from '../../../app/queries';
import { Materials } from '../../../ui/Materials';
import { SmallButton } from '../../../ui/SmallButton';
import parts from '../../frame/parts.module.css';
import { useInfo } from '../../live/useRoom';
import { NO_SIEVE, type Sieve } from './sieve';
import classes from './talk.module.css';
import { Writing } from './Writing';
import { Written } from './Written';

// Seldom asked for.
const WrittenBefore = lazy(() => import('./WrittenBefore'));
const Finding = lazy(() => import('./Finding'));

/** The files and links of the session and the course, at hand while the class is on. */
function RoomFiles() {
  const info = useInfo();
  const materials = useAsked<MaterialInfo[]>(`/courses/${info.course.id}/materials`, { every: 30_000 });
  const here = (materials.data ?? []).filter((m) => m.sessionId === null || m.sessionId === info.session.id);
  if (!here.length) return null;
  return (
    <details className={classes.files}>
      <summary>Files and links ({here.length})</summary>
      <Materials materials={here} />
    </details>
  );
}

/** What was written on the session's page before: asked for when it is opened. */
function Before() {
  const [open, setOpen] = useState(false);
  return (
    <details className={classes.files} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>Written before class</summary>
      {open && (
        <Suspense>
          <WrittenBefore />
        </Suspense>
      )}
    </details>
  );
}

/** What is written in class: to all, to the teachers, to one. */
export function TalkPanel() {
  const [replyTo, setReplyTo] = useState<Message | null>(null);
  const [sieve, setSieve] = useState<Sieve | null>(null);
  return (
    <section className={classes.talk} aria-label="Talk" id="talk">
      <RoomFiles />
      <Before />
      <div className={classes.head}>
        <h2 className={parts.heading}>Talk</h2>
        <SmallButton aria-expanded={sieve !== null} onClick={() => setSieve(sieve ? null : NO_SIEVE)}>
          Find and save
        </SmallButton>
      </div>
      {sieve && (
        <Suspense>
          <Finding sieve={sieve} set={setSieve} />
        </Suspense>
      )}
      <Written sieve={sieve ?? NO_SIEVE} answer={setReplyTo} />
      <Writing replyTo={replyTo} done={() => setReplyTo(null)} />
    </section>
  );
}
