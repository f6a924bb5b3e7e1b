import { IconHandStop, IconMicrophone, IconPhone } from '@tabler/icons-react';
import { lazy, memo, Suspense, useMemo, useRef, useState, useSyncExternalStore, type ReactNode } from 'react';
import type { Capability, Line, Role, RoomInfo } from '@nimble-bell/core/api';
import { clockWords } from '@nimble-bell/core/calendar';
import { exceptionWords } from '@nimble-bell/core/limits';
import {
  devicesOf,
  isHere,
  isOn,
  isWithheld,
  may,
  placeOf,
  sends,
  SIGN_WORDS,
  tableOf,
  type RoomState,
} from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { useNow } from '../../app/clock';
import { LINE_WORDS, useLineOf } from '../live/lines';
import { Picture } from '../live/Playback';
import { WantedInSight } from '../live/Wanted';
import { useInside, useRoom, type Inside } from '../live/useRoom';
import { SignMark } from '../signs/SignMark';
import { useSpeaks, type Speaking } from './speaking';
import classes from './seats.module.css';

// Seldom asked for, and only by those who teach.
const PutOut = lazy(() => import('../door/PutOut'));
const Rename = lazy(() => import('./Rename'));
const SeatMenu = lazy(() => import('./SeatMenu'));

interface SeatProps {
  member: string;
  name: string;
  role: Role;
  /** It is one's own. */
  me: boolean;
  /** Whoever looks at it teaches. */
  teaching: boolean;
  speaking: Speaking;
  /** Nothing was seen of them for long. */
  quiet: boolean;
  /** Their page is behind another. */
  hidden: boolean;
}

/** What somebody may, or may not, whatever the class may: for those who teach. */
function exceptedWords(
  { limits: { exceptions } }: RoomState,
  { me, zone }: RoomInfo,
  member: string,
): string {
  if (!teaches(me.role)) return '';
  return Object.entries(exceptions[member] ?? {})
    .map(([c, own]) => exceptionWords({ ...own, capability: c as Capability }, zone))
    .join(', ');
}

const placeName = (room: RoomState, member: string) =>
  tableOf(room, placeOf(room, member))?.name ?? 'the class';

/** What of the room one seat shows. */
const selectSeat =
  (member: string) =>
  ({ room, info }: Inside) => {
    const here = isHere(room, member);
    return {
      here,
      telephone: here && devicesOf(room, member).telephone,
      pages: devicesOf(room, member).pages,
      pronouns: room.presence.people[member]?.pronouns ?? '',
      renames: info.me.member === member && may(room, info.me, 'rename').allowed,
      microphone: here && isOn(room, member, 'sound'),
      listens: here && Boolean(room.desk.listens[member]),
      /** What is said is passed on. */
      heard: here && sends(room, member, 'sound'),
      zone: info.zone,
      camera: here && isOn(room, member, 'camera'),
      hand: room.floor.hands.some((h) => h.member === member),
      floor: room.floor.holder === member,
      featured: Object.values(room.stage.featured).includes(member),
      excepted: exceptedWords(room, info, member),
      withheld: isWithheld(room, member),
      sign: here ? (room.signs[member]?.sign ?? null) : null,
      elsewhere:
        here && placeOf(room, member) !== placeOf(room, info.me.member) ? placeName(room, member) : '',
    };
  };
export type Shown = ReturnType<ReturnType<typeof selectSeat>>;

interface Seen {
  /** Since when they speak. */
  since: number | null;
  line: Line;
  quiet: boolean;
  hidden: boolean;
}

/** All that a seat says of its person, for whoever does not see it. */
const wordsOf = (shown: Shown, { since, line, quiet, hidden }: Seen): string =>
  [
    shown.here ? (shown.elsewhere ? `at ${shown.elsewhere}` : 'here') : 'absent',
    shown.pronouns,
    shown.telephone && 'by telephone',
    shown.pages > 1 && `on ${shown.pages} pages`,
    shown.microphone && 'microphone on',
    shown.listens && 'only listens',
    since !== null && `speaking since ${clockWords(since, shown.zone)}`,
    shown.hand && 'hand up',
    shown.floor && 'has the floor',
    shown.excepted,
    shown.sign && SIGN_WORDS[shown.sign].toLowerCase(),
    shown.withheld && 'not recorded',
    quiet && 'quiet for long',
    hidden && 'page hidden',
    line !== 'good' && LINE_WORDS[line],
  ]
    .filter(Boolean)
    .join(', ');

/** One person's place: drawn again when something of theirs changes, and at nothing else. */
export const Seat = memo(function Seat(props: SeatProps) {
  const { member, name, role, me, teaching, speaking, quiet, hidden } = props;
  const { call } = useRoom();
  const shown = useInside(useMemo(() => selectSeat(member), [member]));
  const since = useSpeaks(speaking, member);
  const speaks = since !== null && shown.heard && !shown.elsewhere;
  const line = useLineOf(member);
  const camera = useSyncExternalStore(
    call.subscribe,
    () => call.tracks().find((t) => t.member === member && t.kind === 'camera')?.track ?? null,
  );
  const { here, floor } = shown;
  const words = wordsOf(shown, { since: speaks ? since : null, line, quiet, hidden });
  const face = (
    <>
      {shown.camera && !me && <WantedInSight member={member} />}
      {shown.camera && camera && <Picture track={camera} className={classes.seatPicture} />}
      <span className={classes.seatName}>
        {me ? 'You' : name}
        {role !== 'student' && !me && <em> {role}</em>}
        {shown.pronouns && <em> {shown.pronouns}</em>}
      </span>
      <Marks shown={shown} speaks={speaks} weak={line !== 'good'} />
      {speaks && <SpeaksFor since={since} />}
    </>
  );
  const shared = {
    className: classes.seat,
    'data-here': here,
    'data-elsewhere': shown.elsewhere !== '',
    'data-speaking': speaks,
    'data-floor': floor,
    'data-quiet': quiet,
    'data-hidden': hidden,
    'data-testid': 'seat',
    'data-name': name,
    title: `${name}: ${words}`,
    'aria-label': `${name}, ${words}`,
  };
  const works = here && (me ? shown.renames : teaching && !teaches(role));
  if (!works)
    return (
      <div role="img" {...shared}>
        {face}
      </div>
    );
  return <Worked {...{ member, name, me, shown, shared, face }} />;
});

interface WorkedProps {
  member: string;
  name: string;
  me: boolean;
  shown: Shown;
  shared: object;
  face: ReactNode;
}

/**
 * A seat that one can do something with: whoever teaches with others', and everybody with the name of their own. What can
 * be done is made when it is asked for: a class of hundreds comes in at once.
 */
function Worked({ member, name, me, shown, shared, face }: WorkedProps) {
  const seat = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState<'putOut' | 'rename' | null>(null);
  const close = () => setAsked(null);
  return (
    <>
      <button
        type="button"
        {...shared}
        ref={seat}
        aria-haspopup="menu"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {face}
      </button>
      <Suspense>
        {open && (
          <SeatMenu {...{ seat, member, name, me, shown }} close={() => setOpen(false)} ask={setAsked} />
        )}
        {asked === 'putOut' && <PutOut member={member} name={name} close={close} />}
        {asked === 'rename' && <Rename member={member} name={name} close={close} />}
      </Suspense>
    </>
  );
}

/** For how long they speak, once it is minutes. */
function SpeaksFor({ since }: { since: number }) {
  const minutes = Math.floor((useNow(5000) - since) / 60_000);
  return minutes < 1 ? null : (
    <span className={`${classes.speaksFor} figures`} aria-hidden>
      {minutes} min
    </span>
  );
}

/** What stands on a seat beside its name, for the eye. */
function Marks({ shown, speaks, weak }: { shown: Shown; speaks: boolean; weak: boolean }) {
  const { excepted, withheld, telephone, floor, hand, microphone, listens, sign } = shown;
  const marks = [excepted, withheld, telephone, floor, speaks, hand, sign, microphone, listens, weak].filter(
    Boolean,
  ).length;
  return (
    <span className={classes.seatMarks} data-one={marks === 1} aria-hidden>
      {excepted && <ExceptedMark />}
      {withheld && <WithheldMark />}
      {telephone && <IconPhone size={15} data-mark="telephone" />}
      {floor && <FloorMark />}
      {speaks && <SpeaksMark />}
      {hand && <IconHandStop size={15} />}
      {sign && <SignMark sign={sign} />}
      {microphone && <IconMicrophone size={15} />}
      {listens && <ListensMark />}
      {weak && <WeakMark />}
    </span>
  );
}

/** A line that leaves the others: an exception. */
const ExceptedMark = () => (
  <svg viewBox="0 0 16 16" width={15} height={15} data-mark="excepted">
    <path d="M2 4h12M2 12h5l6-4" stroke="currentColor" strokeWidth="2" fill="none" strokeLinecap="round" />
  </svg>
);
/** A reel with a line through it: they are not in the recording. */
const WithheldMark = () => (
  <svg viewBox="0 0 16 16" width={15} height={15} data-mark="withheld">
    <path d="M8 3a5 5 0 1 0 .01 0zM2 14L14 2" stroke="currentColor" strokeWidth="1.8" fill="none" />
  </svg>
);
/** A thread that is nearly through: their connection is weak. */
const WeakMark = () => (
  <svg viewBox="0 0 16 16" width={15} height={15} data-mark="weak">
    <path d="M1 8h4M11 8h4M7 8h.1M9 8h.1" stroke="currentColor" strokeWidth="2.4" strokeLinecap="round" />
  </svg>
);
/** Waves that come to a shore, and none that leave it: they only listen. */
const ListensMark = () => (
  <svg viewBox="0 0 16 16" width={15} height={15} data-mark="listens">
    <path
      d="M2 5q3 3 0 6M6.5 3.5q4.5 4.5 0 9M13 2v12"
      stroke="currentColor"
      strokeWidth="2"
      fill="none"
      strokeLinecap="round"
    />
  </svg>
);
/** A small flag: the floor is theirs. */
const FloorMark = () => (
  <svg viewBox="0 0 16 16" width={15} height={15} data-mark="floor">
    <path d="M4 1v14M4 2h9l-3 3 3 3H4" fill="currentColor" stroke="currentColor" strokeWidth="1.6" />
  </svg>
);
/** Three bars: their voice is heard. */
const SpeaksMark = () => (
  <svg viewBox="0 0 16 16" width={15} height={15} data-mark="speaks">
    <path d="M3 6v4M8 2v12M13 5v6" stroke="currentColor" strokeWidth="2.4" strokeLinecap="round" />
  </svg>
);
