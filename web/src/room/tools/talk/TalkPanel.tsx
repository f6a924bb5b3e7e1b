import { Button, Select, Textarea } from '@mantine/core';
import { lazy, memo, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import type { Addressee, Capability, MaterialInfo, Role } from '@nimble-bell/core/api';
import { teaches } from '@nimble-bell/core/roster';
import { useAsked } from '../../../app/queries';
import { Materials } from '../../../ui/Materials';
import { useLine } from '../../controls/useLine';
import { useRefusal } from '../../controls/useRefusal';
import parts from '../../frame/parts.module.css';
import {
  nameFrom,
  seated,
  useInfo,
  useInside,
  useMay,
  useMe,
  useNameOf,
  useRoom,
  useTeaching,
  type Inside,
} from '../../live/useRoom';
import { Messages } from './Messages';
import classes from './talk.module.css';

// Seldom asked for.
const WrittenBefore = lazy(() => import('./WrittenBefore'));
const Attached = lazy(() => import('./Attached'));
const Attach = lazy(() => import('./Attach'));

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

const selectTalk = ({ room }: Inside) => room.talk;

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
  return (
    <section className={classes.talk} aria-label="Talk">
      <RoomFiles />
      <Before />
      <h2 className={parts.heading}>Talk</h2>
      <Written />
      <Writing />
    </section>
  );
}

function Written() {
  const { messages, earlier } = useInside(selectTalk, Object.is);
  const { connection } = useRoom();
  const { member: me } = useMe();
  const { zone, session } = useInfo();
  const nameOf = useNameOf();
  const list = useRef<HTMLDivElement>(null);
  /** Whoever reads further up is left there. */
  const atEnd = useRef(true);
  const [older, setOlder] = useState<{ messages: typeof messages; earlier: number } | null>(null);
  useEffect(() => {
    if (list.current && atEnd.current) list.current.scrollTop = list.current.scrollHeight;
  }, [messages.length]);
  const before = older?.messages ?? [];
  const left = older ? older.earlier : earlier;
  const readOn = async () => {
    const first = before[0] ?? messages[0];
    const reply = first && (await connection.ask('earlier', { before: first.seq }));
    if (reply?.ok) setOlder({ messages: [...reply.messages, ...before], earlier: reply.earlier });
  };
  return (
    <div
      ref={list}
      className={classes.messages}
      tabIndex={0}
      onScroll={({ currentTarget: e }) => {
        atEnd.current = e.scrollHeight - e.scrollTop - e.clientHeight < 24;
      }}
      role="log"
      aria-live="off"
      aria-label="What was written"
    >
      {left > 0 && (
        <Button size="compact-xs" variant="subtle" onClick={() => void readOn()}>
          {left} written before
        </Button>
      )}
      {messages.length === 0 && <p className={classes.quiet}>Nothing has been written yet.</p>}
      <Messages
        messages={[...before, ...messages]}
        {...{ me, zone, nameOf }}
        files={(id) => (
          <Suspense>
            <Attached session={session.id} id={id} />
          </Suspense>
        )}
      />
    </div>
  );
}

/** To whom one can write: everyone who has been in the room. */
function selectPeople({ room, info }: Inside): { member: string; name: string; role: Role }[] {
  return seated({ room, info })
    .filter((p) => p.member !== info.me.member && room.presence.people[p.member])
    .map((p) => ({ member: p.member, name: nameFrom({ room, info }, p.member), role: p.role }));
}

function useChoices(to: string): { value: string; label: string }[] {
  const teaching = useTeaching();
  const people = useInside(selectPeople);
  // Whom one may not write to is not offered; who was chosen before stays, and it says why it is closed.
  const { allowed } = useMay('writeToStudents');
  return useMemo(() => {
    const one = people
      .filter((p) => (allowed || p.member === to) && (teaching || !teaches(p.role)))
      .map((p) => ({ value: p.member, label: `${p.name} (teachers can read it)` }));
    return [
      { value: 'class', label: 'The class' },
      { value: 'teachers', label: teaching ? 'Those who teach' : 'Your teachers' },
      ...one,
    ];
  }, [people, teaching, allowed, to]);
}

/** By itself: each who comes in is one more to choose, and the field below need not be measured again for it. */
const ToWhom = memo(function ToWhom({ to, setTo }: { to: string; setTo: (to: string) => void }) {
  const choices = useChoices(to);
  return (
    <Select
      size="xs"
      aria-label="To whom"
      data={choices}
      value={to}
      onChange={(v) => setTo(v ?? 'class')}
      allowDeselect={false}
      searchable={choices.length > 8}
    />
  );
});

function Writing() {
  const { send } = useRoom();
  const [to, setTo] = useState('class');
  const addressee: Addressee = to === 'class' || to === 'teachers' ? { to } : { to: 'member', member: to };
  const capability: Capability =
    to === 'class' ? 'writeToClass' : to === 'teachers' ? 'writeToTeachers' : 'writeToStudents';
  const { allowed } = useMay(capability);
  const refusal = useRefusal(capability);
  const attaches = useMay('attachFiles').allowed;
  const { text, say, clear, field } = useLine(
    async (said) => allowed && send({ type: 'say', addressee, text: said }),
  );
  return (
    <div className={classes.write}>
      <ToWhom to={to} setTo={setTo} />
      {allowed ? (
        <>
          <Textarea
            aria-label="Write"
            data-act="write"
            placeholder="Write, and press Enter"
            {...field}
            autosize
            minRows={1}
            maxRows={4}
            maxLength={4000}
          />
          <Button size="xs" onClick={() => void say()} disabled={!text.trim()}>
            Say it
          </Button>
          {attaches && (
            <Suspense>
              <Attach {...{ addressee, text }} sent={clear} />
            </Suspense>
          )}
        </>
      ) : (
        <p className={classes.closed} data-testid="talk-closed">
          {refusal}
        </p>
      )}
    </div>
  );
}
