import type { StoredEvent } from '../room/index';

/** How long somebody was heard (ms), how often they wrote to the class or to those who teach, and raised their hand. */
export interface TakenPart {
  spokenMs: number;
  written: number;
  hands: number;
}

export const NO_PART: TakenPart = { spokenMs: 0, written: 0, hands: 0 };

export const partsTogether = (all: readonly (TakenPart | null)[]): TakenPart =>
  all.reduce<TakenPart>(
    (sum, one) => ({
      spokenMs: sum.spokenMs + (one?.spokenMs ?? 0),
      written: sum.written + (one?.written ?? 0),
      hands: sum.hands + (one?.hands ?? 0),
    }),
    NO_PART,
  );

/** What each wrote, and how often each raised a hand, by what happened in the room; private words are nobody's to count. */
export function partsIn(events: readonly StoredEvent[]): Map<string, Omit<TakenPart, 'spokenMs'>> {
  const parts = new Map<string, Omit<TakenPart, 'spokenMs'>>();
  const add = (member: string, written: number, hands: number) => {
    const known = parts.get(member) ?? { written: 0, hands: 0 };
    parts.set(member, { written: known.written + written, hands: known.hands + hands });
  };
  for (const e of events) {
    if (e.type === 'said' && e.addressee.to !== 'member') add(e.from, 1, 0);
    if (e.type === 'handRaised') add(e.member, 0, 1);
  }
  return parts;
}

/** What it is worth, by what a minute, a line and a hand are; to a tenth. */
export const weighed = (
  { spokenMs, written, hands }: TakenPart,
  { perMinute, perLine, perHand }: { perMinute: number; perLine: number; perHand: number },
): number => Math.round(10 * ((spokenMs / 60_000) * perMinute + written * perLine + hands * perHand)) / 10;
