import { teaches } from '../../roster/role';
import { concern, EVERYONE } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import type { RoomState } from '../kernel/state';
import { isAsked } from '../questions/index';
import { nameIn } from '../words';
import type { PickState } from './state';

/** With each time that somebody was asked more than the one asked least, the lot falls on them so much less often. */
const LESS = 4;

/** Who can be picked, each with their weight: who is here, and not away. */
export function pickable(room: RoomState, but: readonly string[]): { member: string; weight: number }[] {
  const here = Object.values(room.presence.people).filter(
    (o) => o.present && isAsked(o) && room.signs[o.member]?.sign !== 'away' && !but.includes(o.member),
  );
  const times = (member: string) => room.pick.asked[member] ?? 0;
  const least = Math.min(...here.map((o) => times(o.member)));
  return here.map(({ member }) => ({ member, weight: LESS ** (least - times(member)) }));
}

/** A number from 0 to 1 that the same seed gives again: what is decided twice is decided alike. */
function lot(seed: number): number {
  let x = (seed ^ 0x9e3779b9) >>> 0;
  for (let i = 0; i < 3; i++) {
    x = Math.imul(x ^ (x >>> 16), 0x21f0aaad) >>> 0;
    x = Math.imul(x ^ (x >>> 15), 0x735a2d97) >>> 0;
    x = (x ^ (x >>> 15)) >>> 0;
  }
  return x / 2 ** 32;
}

function drawn(room: RoomState, but: readonly string[], now: number): string | null {
  const among = pickable(room, but);
  let rest = lot(now + room.seq * 7919) * among.reduce((sum, a) => sum + a.weight, 0);
  for (const { member, weight } of among) {
    rest -= weight;
    if (rest < 0) return member;
  }
  return among.at(-1)?.member ?? null;
}

const counted = (asked: PickState['asked'], member: string, more: number) => ({
  ...asked,
  [member]: Math.max(0, (asked[member] ?? 0) + more),
});

/** Who is asked, by lot and fairly: whoever was asked least comes first. */
export const pick = concern({
  name: 'pick',
  empty: { now: null, asked: {} },
  commands: {
    pick: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { slowly = false }, now) => {
        const before = room.pick.now?.member;
        // Whoever was asked just now is asked again only where nobody else is there.
        const member = drawn(room, before ? [before] : [], now) ?? drawn(room, [], now);
        return member ? [{ type: 'picked', by, member, slowly, insteadOf: null }] : refuse('nobody-here');
      },
    },
    passOn: {
      who: 'anyone',
      phase: 'live',
      decide: (room, actor, _command, now) => {
        const { now: picked } = room.pick;
        if (!teaches(actor.role) && picked?.member !== actor.member) return refuse('teachers-only');
        if (!picked) return [];
        const member = drawn(room, [...picked.passed, picked.member], now);
        return member
          ? [{ type: 'picked', by: picked.by, member, slowly: false, insteadOf: picked.member }]
          : refuse('nobody-else');
      },
    },
    endPick: {
      who: 'teaching',
      phase: 'live',
      decide: ({ pick: { now } }, { member: by }) => (now ? [{ type: 'pickEnded', by }] : []),
    },
  },
  events: {
    picked: {
      version: 1,
      hears: () => EVERYONE,
      evolve: ({ now, asked }, { by, member, slowly, insteadOf, at }) => ({
        now: {
          ...{ member, by, at, slowly },
          passed: insteadOf === null ? [] : [...(now?.passed ?? []), insteadOf],
        },
        asked: counted(insteadOf === null ? asked : counted(asked, insteadOf, -1), member, 1),
      }),
      notice: ({ member, slowly }, room) => (slowly ? null : `${nameIn(room, member)} is asked.`),
      log: ({ by, member, insteadOf }, nameOf) =>
        insteadOf === null
          ? `${nameOf(by)} asked ${nameOf(member)}, by lot.`
          : `${nameOf(insteadOf)} passed it on to ${nameOf(member)}.`,
    },
    pickEnded: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, now: null }),
      log: null,
    },
  },
  heeds: {
    opened: (part, { asked }) => ({ ...part, asked: asked ?? {} }),
    left: (part, { member }) => (part.now?.member === member ? { ...part, now: null } : part),
    dismissed: (part) => ({ ...part, now: null }),
  },
});
