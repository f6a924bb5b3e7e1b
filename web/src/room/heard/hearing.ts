import { listWords } from '@nimble-bell/core/calendar';
import type { Message } from '@nimble-bell/core/room';

/** What of a room is said aloud when it changes. The one line of what changed is read by itself. */
export interface Heard {
  hands: readonly { member: string }[];
  messages: readonly Message[];
  /** Only those who teach have any. */
  knocks: readonly { member: string; name: string }[];
  /** Which tables ask for a teacher. */
  calls: readonly { place: string }[];
}

export interface Hearer {
  me: string;
  teaching: boolean;
  nameOf: (member: string) => string;
  tableName: (place: string) => string;
}

/** Longer words are begun, and read on in the talk. */
const LONGEST = 200;
const shortened = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text);

function handWords(before: Heard, after: Heard, { nameOf }: Hearer): string[] {
  const known = new Set(before.hands.map((h) => h.member));
  const raised = after.hands.filter((h) => !known.has(h.member)).map((h) => nameOf(h.member));
  if (!raised.length) return [];
  const many = raised.length > 3 ? `${raised.length} people` : listWords(raised);
  const up = after.hands.length;
  return [`${many} raised a hand.${up > raised.length ? ` ${up} hands are up.` : ''}`];
}

function knockWords(before: Heard, after: Heard): string[] {
  const known = new Set(before.knocks.map((k) => k.member));
  const fresh = after.knocks.filter((k) => !known.has(k.member)).map((k) => k.name);
  if (!fresh.length) return [];
  const many = fresh.length > 3 ? `${fresh.length} people` : listWords(fresh);
  const all = after.knocks.length;
  return [`${many} knocked.${all > fresh.length ? ` ${all} wait at the door.` : ''}`];
}

function callWords(before: Heard, after: Heard, { tableName }: Hearer): string[] {
  const fresh = after.calls.filter((c) => !before.calls.some((b) => b.place === c.place));
  return fresh.map((c) => `${tableName(c.place)} asks for you.`);
}

function messageWords(before: Heard, after: Heard, { me, teaching, nameOf }: Hearer): string[] {
  const last = before.messages.at(-1)?.seq ?? 0;
  const fresh = after.messages.filter((m) => m.seq > last && m.from !== me);
  const mine = fresh.filter(
    ({ addressee: a }) => (a.to === 'member' && a.member === me) || (a.to === 'teachers' && teaching),
  );
  const toClass = fresh.filter((m) => m.addressee.to === 'class');
  const said = mine.map(
    (m) =>
      `${nameOf(m.from)} to ${m.addressee.to === 'member' ? 'you' : 'the teachers'}: ${shortened(m.text)}`,
  );
  const newest = toClass.at(-1);
  if (newest)
    said.push(
      toClass.length === 1
        ? `${nameOf(newest.from)}: ${shortened(newest.text)}`
        : `${toClass.length} new in the talk, the last from ${nameOf(newest.from)}.`,
    );
  return said;
}

/** What is said of what happened between two moments, once each; a burst is counted, not read out. */
export const heardBetween = (before: Heard, after: Heard, hearer: Hearer): string[] => [
  ...(hearer.teaching ? [...handWords(before, after, hearer), ...callWords(before, after, hearer)] : []),
  ...knockWords(before, after),
  ...messageWords(before, after, hearer),
];
