import { countWords } from '../../calendar/words';
import { teaches } from '../../roster/role';
import { concern, EVERYONE } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { refuse } from '../kernel/refusals';
import { isHere } from '../presence/index';
import { markedFor, sees } from '../sight';
import { nameIn } from '../words';
import type { FloorState } from './state';

const without = (part: FloorState, member: string) => part.hands.filter((h) => h.member !== member);

/** The right to speak now, and the hands that ask for it. */
export const floor = concern({
  name: 'floor',
  empty: { holder: null, until: null, hands: [] },
  commands: {
    giveFloor: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { member, minutes }) => {
        if (!isHere(room, member)) return refuse('not-here');
        if (teaches(room.presence.people[member]!.role)) return refuse('teaches');
        if (room.limits.hush) return refuse('hushed');
        const { holder } = room.floor;
        if (holder === member && !minutes) return [];
        const given: RoomEvent = { type: 'floorGiven', by, member, ...(minutes ? { minutes } : {}) };
        if (holder === member) return [given];
        return holder ? [{ type: 'floorTaken', by, member: holder }, given] : [given];
      },
    },
    takeFloor: {
      who: 'teaching',
      phase: 'live',
      decide: ({ floor: { holder } }, { member: by }) =>
        holder ? [{ type: 'floorTaken', by, member: holder }] : [],
    },
    raiseHand: {
      who: 'anyone',
      phase: 'any',
      decide: (room, { member }) => {
        if (room.limits.hush) return refuse('hushed-now');
        return room.floor.hands.some((h) => h.member === member) ? [] : [{ type: 'handRaised', member }];
      },
    },
    lowerHand: {
      who: 'anyone',
      phase: 'any',
      decide: (room, actor, { member }) => {
        if (member !== actor.member && !teaches(actor.role)) return refuse('teachers-only');
        const up = room.floor.hands.some((h) => h.member === member);
        return up ? [{ type: 'handLowered', by: actor.member, member }] : [];
      },
    },
    lowerAll: {
      who: 'teaching',
      phase: 'any',
      decide: ({ floor: { hands } }, { member: by }) =>
        hands.map(({ member }) => ({ type: 'handLowered', by, member })),
    },
  },
  events: {
    floorGiven: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { member, minutes, at }) => ({
        holder: member,
        until: minutes ? at + minutes * 60_000 : null,
        hands: without(part, member),
      }),
      notice: ({ member, minutes }, room) =>
        `${nameIn(room, member)} has the floor${minutes ? ` for ${countWords(minutes, 'minute')}` : ''}.`,
      chapter: ({ member }, nameOf) => `${nameOf(member)} has the floor`,
      log: ({ by, member }, nameOf) => `${nameOf(by)} gave ${nameOf(member)} the floor.`,
    },
    floorTaken: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, holder: null, until: null }),
      notice: ({ by, member }, room) =>
        by
          ? `${nameIn(room, by)} has the floor again.`
          : `The time of ${nameIn(room, member, 'somebody')} is over: the floor is the teachers’ again.`,
      log: ({ by, member }, nameOf) =>
        by
          ? `${nameOf(by)} took the floor back from ${nameOf(member)}.`
          : `The time of ${nameOf(member)} with the floor was over.`,
    },
    handRaised: {
      version: 1,
      hears: ({ member }, room) => markedFor(room, member),
      evolve: (part, { member, at }) => ({ ...part, hands: [...part.hands, { member, at }] }),
      log: ({ member }, nameOf) => `${nameOf(member)} raised a hand.`,
    },
    handLowered: {
      version: 1,
      hears: ({ member }, room) => markedFor(room, member),
      evolve: (part, { member }) => ({ ...part, hands: without(part, member) }),
      log: null,
    },
  },
  heeds: {
    left: (part, { member }) => ({
      holder: part.holder === member ? null : part.holder,
      until: part.holder === member ? null : part.until,
      hands: without(part, member),
    }),
    // Nobody leads a class that is at its tables.
    tablesLaid: (part) => ({ ...part, holder: null, until: null }),
    dismissed: () => ({ holder: null, until: null, hands: [] }),
  },
  seenBy: (part, viewer, room) =>
    sees(room, viewer, 'seeMarks')
      ? part
      : { ...part, hands: part.hands.filter((h) => h.member === viewer.member) },
  due: ({ floor: { holder, until }, bell: { phase } }) =>
    holder === null || until === null || phase !== 'live'
      ? null
      : { at: until, events: [{ type: 'floorTaken', by: null, member: holder }] },
});
