import { Button, Select, Textarea } from '@mantine/core';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { Addressee, Capability, MaterialInfo } from '@nimble-bell/core/api';
import { teaches } from '@nimble-bell/core/limits';
import { refusalWords } from '@nimble-bell/core/room';
import { useAsked } from '../app/queries';
import { Materials } from '../ui/Materials';
import { Messages } from './Messages';
import { useRoom } from './useRoom';
import classes from './room.module.css';

/** The files and links of the session and the course, at hand while the class is on. */
function RoomFiles() {
  const { info } = useRoom();
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

/** What is written in class: to all, to the teachers, to one. */
export function TalkPanel() {
  const { state, send, may, info, me, teaching, nameOf } = useRoom();
  const [to, setTo] = useState('class');
  const [text, setText] = useState('');
  const end = useRef<HTMLDivElement>(null);
  useEffect(() => {
    void end.current?.scrollIntoView({ block: 'nearest' });
  }, [state.talk.length]);

  const choices = useMemo(() => {
    const people = info.people.filter((p) => p.member !== me && state.occupants[p.member]);
    const one = people
      .filter((p) => teaching || !teaches(p.role))
      .map((p) => ({ value: p.member, label: `${p.name} (teachers can read it)` }));
    return [
      { value: 'class', label: 'The class' },
      { value: 'teachers', label: teaching ? 'Those who teach' : 'Your teachers' },
      ...one,
    ];
  }, [info.people, me, state.occupants, teaching]);

  const addressee: Addressee = to === 'class' || to === 'teachers' ? { to } : { to: 'member', member: to };
  const capability: Capability =
    to === 'class' ? 'writeToClass' : to === 'teachers' ? 'writeToTeachers' : 'writeToStudents';
  const verdict = may(capability);
  const say = async () => {
    const said = text.trim();
    if (!said || !verdict.allowed) return;
    setText('');
    if (!(await send({ type: 'say', addressee, text: said }))) setText(said);
  };
  const press = (e: KeyboardEvent) => {
    if (e.key !== 'Enter' || e.shiftKey) return;
    e.preventDefault();
    void say();
  };
  return (
    <section className={classes.talk} aria-label="Talk">
      <RoomFiles />
      <h2 className={classes.heading}>Talk</h2>
      <div className={classes.messages} tabIndex={0} role="log" aria-label="What was written">
        {state.talk.length === 0 && <p className={classes.quiet}>Nothing has been written yet.</p>}
        <Messages talk={state.talk} me={me} zone={info.zone} nameOf={nameOf} />
        <div ref={end} />
      </div>
      <div className={classes.write}>
        <Select
          size="xs"
          aria-label="To whom"
          data={choices}
          value={to}
          onChange={(v) => setTo(v ?? 'class')}
          allowDeselect={false}
          searchable={choices.length > 8}
        />
        {verdict.allowed ? (
          <>
            <Textarea
              aria-label="Write"
              placeholder="Write, and press Enter"
              value={text}
              onChange={(e) => setText(e.currentTarget.value)}
              onKeyDown={press}
              autosize
              minRows={1}
              maxRows={4}
              maxLength={4000}
            />
            <Button size="xs" onClick={() => void say()} disabled={!text.trim()}>
              Say it
            </Button>
          </>
        ) : (
          <p className={classes.closed} data-testid="talk-closed">
            {refusalWords(state, info.me, capability)}
          </p>
        )}
      </div>
    </section>
  );
}
