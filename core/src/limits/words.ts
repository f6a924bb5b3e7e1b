import { dateIn, dateWords, listWords } from '../calendar/words';
import { rowOf, CAPABILITY_IDS, type Capability, type Limits, type Permission } from './capabilities';

export const PERMISSION_WORDS: Record<Permission, string> = {
  closed: 'Closed',
  byHand: 'By hand',
  open: 'Open',
};

/** What one may, or may not, as in "write to the class closed". */
export const limitWords = (capability: Capability, state: Permission): string =>
  `${rowOf(capability).label.toLowerCase()} ${PERMISSION_WORDS[state].toLowerCase()}`;

/** The same of an exception, with its last day where it has one: `until` is the instant after it. */
export const exceptionWords = (
  { capability, state, until }: { capability: Capability; state: Permission; until: number | null },
  zone: string,
): string =>
  until === null
    ? limitWords(capability, state)
    : `${limitWords(capability, state)} until ${dateWords(dateIn(zone, until - 1))}`;

/** "Speaking is now open." as students read it when a limit changes. */
export function changeWords(capability: Capability, state: Permission): string {
  const { doing, verb } = rowOf(capability);
  if (state === 'byHand') return `${doing} ${verb} now by hand: raise yours to ask.`;
  return `${doing} ${verb} now ${state}.`;
}

/** The limits in force as one sentence for each state. */
export function limitsWords(limits: Limits): { state: Permission; doings: string[] }[] {
  return (['open', 'byHand', 'closed'] as const).map((state) => ({
    state,
    doings: CAPABILITY_IDS.filter((c) => limits[c] === state).map((c) => rowOf(c).label.toLowerCase()),
  }));
}

const STATE_WORDS: Record<Permission, string> = {
  open: 'Open to you in class',
  byHand: 'By a raised hand',
  closed: 'Closed',
};

/** What a student may do in class, in a line: "Open to you in class: cameras. By a raised hand: speaking." */
export function mayWords(limits: Limits): string {
  const doings = (state: Permission) =>
    CAPABILITY_IDS.filter((c) => limits[c] === state).map((c) => rowOf(c).doing.toLowerCase());
  return (['open', 'byHand', 'closed'] as const)
    .filter((state) => doings(state).length)
    .map((state) => `${STATE_WORDS[state]}: ${listWords(doings(state))}.`)
    .join(' ');
}
