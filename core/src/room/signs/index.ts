import { concern } from '../kernel/concern';
import { markedFor, sees } from '../sight';
import type { Sign } from './schema';
import { SIGNS } from './signs';
import type { SignsState } from './state';

/** A sign fades by itself, ms; but for "away", which stands until its person is back. */
const FADES_MS = 90_000;
/** Signs of a whole class fade together, where they were given within this, ms. */
const TOGETHER_MS = 3000;

const without = (part: SignsState, member: string): SignsState => {
  if (!part[member]) return part;
  const { [member]: _, ...others } = part;
  return others;
};

/** What each says of themselves without a word: with you, lost, slower, … */
export const signs = concern({
  name: 'signs',
  empty: {},
  commands: {
    giveSign: {
      who: 'anyone',
      phase: 'any',
      // What was given is taken back also where giving is closed by now.
      needs: ({ sign }) => (sign ? ['react'] : []),
      decide: (room, { member }, { sign }) =>
        (room.signs[member]?.sign ?? null) === sign ? [] : [{ type: 'signGiven', member, sign }],
    },
  },
  events: {
    signGiven: {
      version: 1,
      hears: ({ member }, room) => markedFor(room, member),
      evolve: (part, { member, sign, at }) =>
        sign ? { ...part, [member]: { sign, at } } : without(part, member),
      log: ({ member, sign }, nameOf) =>
        sign
          ? `${nameOf(member)} gave a sign: ${SIGN_WORDS[sign].toLowerCase()}.`
          : `The sign of ${nameOf(member)} is gone.`,
    },
  },
  heeds: {
    left: (part, { member }) => without(part, member),
    dismissed: () => ({}),
  },
  due: ({ signs: part }) => {
    const fading = Object.entries(part).filter(([, { sign }]) => sign !== 'away');
    if (!fading.length) return null;
    const first = Math.min(...fading.map(([, { at }]) => at));
    const gone = fading.filter(([, { at }]) => at <= first + TOGETHER_MS).map(([member]) => member);
    return {
      at: first + FADES_MS,
      events: gone.map((member) => ({ type: 'signGiven', member, sign: null })),
    };
  },
  seenBy: (part, viewer, room) =>
    sees(room, viewer, 'seeMarks')
      ? part
      : Object.fromEntries(Object.entries(part).filter(([member]) => member === viewer.member)),
});

/** How many give each sign, of those that are given. */
export type GivenSigns = Readonly<Partial<Record<Sign, number>>>;

export function givenSigns(part: SignsState): GivenSigns {
  const given: Partial<Record<Sign, number>> = {};
  for (const sign of SIGNS) {
    const count = Object.values(part).filter((s) => s.sign === sign).length;
    if (count) given[sign] = count;
  }
  return given;
}

/** "3 lost, 1 slower". */
export const signsWords = (given: GivenSigns): string =>
  SIGNS.filter((sign) => given[sign])
    .map((sign) => `${given[sign]} ${SIGN_WORDS[sign].toLowerCase()}`)
    .join(', ');

/** As a sign reads. */
export const SIGN_WORDS: Readonly<Record<Sign, string>> = {
  withYou: 'With you',
  lost: 'Lost',
  slower: 'Slower',
  faster: 'Faster',
  break: 'A break',
  agree: 'Agreed',
  away: 'Away',
};
