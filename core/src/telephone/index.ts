import { listWords } from '../calendar/words';
import { teaches } from '../roster/role';
import {
  audience,
  CLASS,
  isOn,
  may,
  nameIn,
  noticeOf,
  placeOf,
  refusalWords,
  snapshotFor,
  tableOf,
  type Actor,
  type RoomCommand,
  type RoomState,
  type StoredEvent,
} from '../room/index';

/** What a telephone can send besides sound. */
export const TELEPHONE_KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '*', '0', '#'] as const;
export type TelephoneKey = (typeof TELEPHONE_KEYS)[number];
export const isKey = (text: unknown): text is TelephoneKey =>
  (TELEPHONE_KEYS as readonly unknown[]).includes(text);

export const PIN_DIGITS = 8;

/** A PIN as it is keyed: eight digits; star begins again. */
export function keyed(soFar: string, key: TelephoneKey): string {
  if (key === '*') return '';
  return key === '#' || soFar.length >= PIN_DIGITS ? soFar : soFar + key;
}

/** What the line says before a class, word for word. */
export const LINE_WORDS = {
  greeting: 'Please key your PIN of eight digits. Star begins again.',
  wrong: 'This PIN is not known on this line. Please key it again.',
  tooOften: 'There were too many wrong PINs. Please try again later, or ask your teacher.',
  noLine: 'No class is reached by this number.',
  noClass: 'No class is ahead in this course.',
  knocks: 'You are at the door. The teachers see that you are there. Please hold the line.',
  holds: 'Please hold the line.',
  relayAway: 'Sound is away for the moment. Please hold the line.',
  late: 'Nobody has let you in. Goodbye.',
  away: 'Sound is away for the moment. Please call again.',
  busy: 'All lines are taken. Please call again.',
  goodbye: 'Goodbye.',
  keys: 'One raises or lowers your hand. Two is your microphone. Three tells what you may do now. Four tells who is speaking. At a table, five calls a teacher. Zero says this again.',
} as const;

/** What a caller hears who has come in. */
export const welcomeWords = (course: { title: string }): string =>
  `You are in ${course.title}. Your microphone is off. Zero tells the keys.`;

/** What a key in class does: a command for the room, or something to be said at once. */
export type Pressed = { command: RoomCommand } | { say: string };

export function pressed(room: RoomState, actor: Actor, key: TelephoneKey): Pressed | null {
  const { member } = actor;
  if (key === '1') {
    const up = room.floor.hands.some((h) => h.member === member);
    return { command: up ? { type: 'lowerHand', member } : { type: 'raiseHand' } };
  }
  if (key === '2') return { command: { type: 'microphone', on: !isOn(room, member, 'sound') } };
  if (key === '3') return { say: mayNow(room, actor) };
  if (key === '4') return { say: whoSpeaks(snapshotFor(room, actor), member) };
  if (key === '5') {
    const place = placeOf(room, member);
    if (place === CLASS) return { say: 'You are with the class: it is at no table.' };
    const called = room.tables.laid?.calls.some((c) => c.place === place) ?? false;
    return { command: { type: 'callHelp', on: !called } };
  }
  if (key === '0') return { say: LINE_WORDS.keys };
  return null;
}

/** What a caller may do now, as far as a telephone can do it. */
export function mayNow(room: RoomState, actor: Actor): string {
  const { member } = actor;
  if (room.bell.phase === 'waiting') return 'The class has not begun.';
  const microphone = isOn(room, member, 'sound') ? 'Your microphone is on.' : 'Your microphone is off.';
  const speaks = may(room, actor, 'speak').allowed
    ? `You may speak. ${microphone}`
    : `You may not speak now. ${refusalWords(room, actor, 'speak')}`;
  const up = room.floor.hands.some((h) => h.member === member) ? ' Your hand is raised.' : '';
  return speaks + up;
}

/** Who has the floor, and whose microphones are on. */
export function whoSpeaks(room: RoomState, me: string): string {
  const called = (member: string) => (member === me ? 'you' : nameIn(room, member));
  const { holder } = room.floor;
  const here = placeOf(room, me);
  const on = Object.keys(room.desk.microphone).filter(
    (m) => room.presence.people[m]?.present && placeOf(room, m) === here,
  );
  const floor =
    holder === null ? '' : holder === me ? 'You have the floor. ' : `${called(holder)} has the floor. `;
  const [one] = on;
  if (one === undefined) return `${floor}No microphone is on.`;
  if (on.length > 5) return `${floor}${on.length} microphones are on.`;
  if (on.length > 1) return `${floor}Microphones are on: ${listWords(on.map(called))}.`;
  return `${floor}${one === me ? 'Your microphone is on, and no other.' : `The microphone of ${called(one)} is on.`}`;
}

/** Where a caller is from now on, and with whom. */
function placeWords(room: RoomState, me: string, to: string): string {
  const table = tableOf(room, to);
  if (!table) return 'You are back with the class.';
  const others = Object.values(room.presence.people).filter(
    (p) => p.present && p.member !== me && placeOf(room, p.member) === to,
  );
  const company =
    others.length === 0
      ? 'Nobody else is there yet.'
      : others.length > 5
        ? `${others.length} others are there.`
        : `With you: ${listWords(others.map((p) => p.name))}.`;
  const task = room.tables.laid?.task;
  return `You are at ${table.name}. ${company}${task ? ` What is to be done: ${task}` : ''}`;
}

/** What a caller hears while the class is at tables. */
function tableWords(event: StoredEvent, room: RoomState, me: string): string | null {
  switch (event.type) {
    case 'wentTo': {
      const move = event.moves.find((m) => m.member === me);
      return move ? placeWords(room, me, move.to) : null;
    }
    case 'tablesTold':
      return `${nameIn(room, event.by)} says to all tables: ${event.text}`;
    case 'backSoon':
      return 'In half a minute everybody is back with the class.';
    case 'helpCalled':
      if (event.place !== placeOf(room, me)) return null;
      return event.on ? 'Your table calls a teacher.' : 'Your table calls no more.';
    default:
      return null;
  }
}

/** What a caller's own acts and what is done to them are answered with. */
function ownWords(event: StoredEvent, room: RoomState, me: string): string | null {
  switch (event.type) {
    case 'handRaised':
      return event.member === me ? 'Your hand is raised.' : null;
    case 'handLowered':
      return event.member === me ? 'Your hand is lowered.' : null;
    case 'microphone':
      if (event.member !== me) return null;
      return event.on ? 'Your microphone is on.' : 'Your microphone is off.';
    case 'floorGiven':
      return event.member === me ? 'You have the floor. Two switches your microphone on.' : null;
    case 'floorTaken':
      return event.member === me ? 'Your turn to speak is over. Your microphone is off.' : null;
    case 'picked':
      return event.member === me ? 'You are asked.' : null;
    case 'askedOn':
      return event.member === me
        ? `${nameIn(room, event.by)} asks you to switch your microphone on. Press two.`
        : null;
    case 'muted':
      if (event.member !== me && event.member !== null) return null;
      return `${nameIn(room, event.by)} has turned your microphone off.`;
    case 'said': {
      const { addressee, from, text } = event;
      return addressee.to === 'member' && addressee.member === me
        ? `${nameIn(room, from)} writes to you: ${text.slice(0, 300)}`
        : null;
    }
    default:
      return tableWords(event, room, me);
  }
}

/** What everyone in the room reads in one line, and a caller is told: what touches speaking, the class itself, and what is put before it. */
const TOLD: ReadonlySet<StoredEvent['type']> = new Set([
  'rangIn',
  'hushed',
  'lifted',
  'cued',
  'recordingStarted',
  'recordingPaused',
  'recordingResumed',
  'recordingNarrowed',
  'timerStarted',
  'timeAdded',
  'timerRang',
  'asked',
]);

/** What a caller hears said of an event, once; null where it is none of theirs. The room is as it is after the event. */
export function toldOf(event: StoredEvent, room: RoomState, actor: Actor): string | null {
  if (audience(event, actor, room) === null) return null;
  // By the names that they may know.
  const known = { ...room, presence: snapshotFor(room, actor).presence };
  const own = ownWords(event, known, actor.member);
  if (own) return own;
  const speaks =
    (event.type === 'limitSet' || event.type === 'limitLent' || event.type === 'lentBack') &&
    event.capability === 'speak' &&
    !teaches(actor.role);
  const sits = event.type === 'tablesLimited' && placeOf(room, actor.member) !== CLASS;
  return speaks || sits || TOLD.has(event.type) ? noticeOf(event, known) : null;
}
