import { Menu } from '@mantine/core';
import { IconHandStop, IconMicrophone } from '@tabler/icons-react';
import { memo, useEffect, useState, useSyncExternalStore } from 'react';
import type { RoomCommand } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Picture } from './Playback';
import { useRoom } from './useRoom';
import classes from './room.module.css';

const LOUD = 0.01;
/** A breath between two words does not end the speaking. */
const HELD_MS = 1200;

/** Who is speaking now, by the sound that arrives here. */
function useSpeaking(): ReadonlySet<string> {
  const { call } = useRoom();
  const [speaking, setSpeaking] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    const heard = new Map<string, number>();
    const timer = setInterval(() => {
      const now = performance.now();
      for (const [member, level] of call.levels()) if (level > LOUD) heard.set(member, now);
      const held = new Set([...heard].filter(([, at]) => now - at < HELD_MS).map(([member]) => member));
      setSpeaking((before) =>
        before.size === held.size && [...held].every((m) => before.has(m)) ? before : held,
      );
    }, 150);
    return () => clearInterval(timer);
  }, [call]);
  return speaking;
}

/** The whole class list in its places, the absent as outlines. */
export function Seats() {
  const { info, state, me, call, teaching, send } = useRoom();
  const speaking = useSpeaking();
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  const here = (p: { member: string }) => state.occupants[p.member]?.present ?? false;
  const present = info.people.filter(here);
  // Who is here comes first, each in the class list's order; the absent follow as outlines.
  const seats = [...present, ...info.people.filter((p) => !here(p))];
  return (
    <section
      className={classes.seats}
      aria-label={`Seats: ${present.length} of ${info.people.length} are here`}
    >
      <div className={classes.seatGrid} tabIndex={0} role="group" aria-label="Class list">
        {seats.map((p) => {
          const o = state.occupants[p.member];
          const camera = tracks.find((t) => t.member === p.member && t.kind === 'camera')?.track;
          return (
            <Seat
              key={p.member}
              member={p.member}
              name={p.name}
              role={p.role}
              me={p.member === me}
              here={o?.present ?? false}
              microphone={(o?.present && o.microphone) ?? false}
              hand={state.hands.some((h) => h.member === p.member)}
              floor={state.floor === p.member}
              speaking={speaking.has(p.member)}
              camera={o?.present && o.camera ? (camera ?? null) : null}
              teaching={teaching}
              send={send}
            />
          );
        })}
        {teaching && state.phase === 'live' && (
          <Nudge
            session={info.session.id}
            missing={
              info.people.filter((p) => !here(p) && (p.role === 'student' || p.role === 'guest')).length
            }
          />
        )}
      </div>
    </section>
  );
}

/** A word by mail to those who are missing; each gets it once. */
function Nudge({ session, missing }: { session: string; missing: number }) {
  const ask = useAsk();
  const nudge = useChange(
    () => ask<{ queued: number; missing: number }>(`/sessions/${session}/nudge`, 'POST', {}),
    ({ queued, missing: left }) =>
      queued
        ? `${countWords(queued, 'person', 'people')} nudged by mail.`
        : left
          ? 'Everyone missing was nudged already.'
          : 'Nobody is missing.',
  );
  if (!missing) return null;
  return (
    <button
      type="button"
      className={`${classes.seat} ${classes.nudge}`}
      disabled={nudge.isPending}
      onClick={() => nudge.mutate(undefined)}
    >
      Nudge {missing} missing
    </button>
  );
}

interface SeatProps {
  member: string;
  name: string;
  role: string;
  me: boolean;
  here: boolean;
  microphone: boolean;
  hand: boolean;
  floor: boolean;
  speaking: boolean;
  camera: MediaStreamTrack | null;
  teaching: boolean;
  send: (command: RoomCommand) => Promise<boolean>;
}

const Seat = memo(function Seat(props: SeatProps) {
  const { name, here, microphone, hand, floor, speaking, camera, teaching, me, role } = props;
  const words = [
    here ? 'here' : 'absent',
    microphone && 'microphone on',
    speaking && 'speaking',
    hand && 'hand up',
    floor && 'has the floor',
  ].filter(Boolean);
  const face = (
    <>
      {camera && <Picture track={camera} className={classes.seatPicture} />}
      <span className={classes.seatName}>
        {me ? 'You' : name}
        {role !== 'student' && !me && <em> {role}</em>}
      </span>
      <span className={classes.seatMarks} aria-hidden>
        {hand && <IconHandStop size={15} />}
        {microphone && <IconMicrophone size={15} />}
      </span>
    </>
  );
  const shared = {
    className: classes.seat,
    'data-here': here,
    'data-speaking': speaking,
    'data-floor': floor,
    'data-testid': 'seat',
    'data-name': name,
    title: `${name}: ${words.join(', ')}`,
    'aria-label': `${name}, ${words.join(', ')}`,
  };
  if (!teaching || !here || me || role !== 'student')
    return (
      <div role="img" {...shared}>
        {face}
      </div>
    );
  return (
    <Menu position="top" withArrow>
      <Menu.Target>
        <button type="button" {...shared}>
          {face}
        </button>
      </Menu.Target>
      <SeatMenu {...props} />
    </Menu>
  );
});

function SeatMenu({ member, name, microphone, floor, hand, send }: SeatProps) {
  return (
    <Menu.Dropdown>
      <Menu.Label>{name}</Menu.Label>
      <Menu.Item disabled={!microphone} onClick={() => void send({ type: 'mute', member })}>
        Mute
      </Menu.Item>
      {floor ? (
        <Menu.Item onClick={() => void send({ type: 'takeFloor' })}>Take the floor back</Menu.Item>
      ) : (
        <Menu.Item onClick={() => void send({ type: 'giveFloor', member })}>Give the floor</Menu.Item>
      )}
      {hand && <Menu.Item onClick={() => void send({ type: 'lowerHand', member })}>Lower the hand</Menu.Item>}
    </Menu.Dropdown>
  );
}
