import { Button, Select, Textarea } from '@mantine/core';
import { lazy, memo, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import type { Addressee, Capability, Role } from '@nimble-bell/core/api';
import { CLASS, type Message } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { SmallButton } from '../../../ui/SmallButton';
import { useLine } from '../../controls/useLine';
import { useRefusal } from '../../controls/useRefusal';
import {
  nameFrom,
  seated,
  useInside,
  useMay,
  useMe,
  useNameOf,
  usePlace,
  useRoom,
  useTeaching,
  type Inside,
} from '../../live/useRoom';
import classes from './talk.module.css';

const Attach = lazy(() => import('./Attach'));

/** Whoever answers writes to whom it came from, or to all whom it was for. */
const answeredTo = ({ addressee, from }: Message, me: string): string => {
  if (addressee.to === 'class') return 'class';
  if (from !== me) return from;
  return addressee.to === 'member' ? addressee.member : 'teachers';
};

/** So often it is told that one writes, ms. */
const TOLD_MS = 2500;

function useTyping() {
  const { connection } = useRoom();
  const last = useRef(0);
  return () => {
    const now = performance.now();
    if (now - last.current < TOLD_MS) return;
    last.current = now;
    connection.signal({ what: 'typing' });
  };
}

function Answering({ message, leave }: { message: Message; leave: () => void }) {
  const nameOf = useNameOf();
  return (
    <div className={classes.answering}>
      <span>
        To {nameOf(message.from)}: “{message.text.slice(0, 80)}”
      </span>
      <SmallButton onClick={leave}>Not an answer</SmallButton>
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
  const where = usePlace() === CLASS ? 'The class' : 'This table';
  // Whom one may not write to is not offered; who was chosen before stays, and it says why it is closed.
  const { allowed } = useMay('writeToStudents');
  return useMemo(() => {
    const one = people
      .filter((p) => (allowed || p.member === to) && (teaching || !teaches(p.role)))
      .map((p) => ({ value: p.member, label: `${p.name} (teachers can read it)` }));
    return [
      { value: 'class', label: where },
      { value: 'teachers', label: teaching ? 'Those who teach' : 'Your teachers' },
      ...one,
    ];
  }, [people, teaching, allowed, to, where]);
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

interface WritingProps {
  /** The message that is answered. */
  replyTo: Message | null;
  done: () => void;
}

/** To whom one writes; whoever answers writes to whom that came from. */
function useAddressee(replyTo: Message | null) {
  const { member: me } = useMe();
  const [to, setTo] = useState('class');
  const [answered, setAnswered] = useState<Message | null>(null);
  if (replyTo !== answered) {
    setAnswered(replyTo);
    if (replyTo) setTo(answeredTo(replyTo, me));
  }
  const addressee: Addressee = to === 'class' || to === 'teachers' ? { to } : { to: 'member', member: to };
  const capability: Capability =
    to === 'class' ? 'writeToClass' : to === 'teachers' ? 'writeToTeachers' : 'writeToStudents';
  return { to, setTo, addressee, capability };
}

/** Where one writes: a new message, or an answer to one. What is typed stays when one comes to answer. */
export function Writing({ replyTo, done }: WritingProps) {
  const { send } = useRoom();
  const { to, setTo, addressee, capability } = useAddressee(replyTo);
  const [call, setCall] = useState(false);
  const { allowed } = useMay(capability);
  const refusal = useRefusal(capability);
  const line = useLine(async (said) => {
    const more = { ...(replyTo ? { reply: replyTo.seq } : {}), ...(call ? { call } : {}) };
    const taken = allowed && (await send({ type: 'say', addressee, text: said, ...more }));
    if (taken) {
      setCall(false);
      done();
    }
    return taken;
  });
  return (
    <div className={classes.write}>
      {replyTo && <Answering message={replyTo} leave={done} />}
      <ToWhom to={to} setTo={setTo} />
      {allowed ? (
        <Field {...{ line, addressee, replyTo, call, setCall }} />
      ) : (
        <p className={classes.closed} data-testid="talk-closed">
          {refusal}
        </p>
      )}
    </div>
  );
}

interface FieldProps {
  line: ReturnType<typeof useLine>;
  addressee: Addressee;
  replyTo: Message | null;
  call: boolean;
  setCall: (call: boolean) => void;
}

function Field({ line: { text, say, clear, field }, addressee, replyTo, call, setCall }: FieldProps) {
  const teaching = useTeaching();
  const typing = useTyping();
  const attaches = useMay('attachFiles').allowed;
  const toClass = addressee.to === 'class';
  const where = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    if (replyTo) where.current?.focus();
  }, [replyTo]);
  return (
    <>
      <Textarea
        ref={where}
        aria-label="Write"
        data-act="write"
        placeholder="Write, and press Enter"
        {...field}
        onChange={(e) => {
          field.onChange(e);
          if (toClass) typing();
        }}
        dir="auto"
        autosize
        minRows={1}
        maxRows={4}
        maxLength={4000}
      />
      <Button size="xs" onClick={() => void say()} disabled={!text.trim()}>
        Say it
      </Button>
      {teaching && toClass && (
        <label className={classes.call}>
          <input type="checkbox" checked={call} onChange={(e) => setCall(e.currentTarget.checked)} />
          Over the stage, for everybody
        </label>
      )}
      {attaches && (
        <Suspense>
          <Attach {...{ addressee, text }} sent={clear} />
        </Suspense>
      )}
    </>
  );
}
