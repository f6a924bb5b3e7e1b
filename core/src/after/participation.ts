import type { StoredEvent } from '../room/index';
import type { AfterValues } from '../settings/index';

/** How long somebody was heard (ms), and how often they wrote to the class or to those who teach, raised a hand, answered. */
export interface TakenPart {
  spokenMs: number;
  written: number;
  hands: number;
  answers: number;
}

export const NO_PART: TakenPart = { spokenMs: 0, written: 0, hands: 0, answers: 0 };

export const partsTogether = (all: readonly (TakenPart | null)[]): TakenPart =>
  all.reduce<TakenPart>(
    (sum, one) => ({
      spokenMs: sum.spokenMs + (one?.spokenMs ?? 0),
      written: sum.written + (one?.written ?? 0),
      hands: sum.hands + (one?.hands ?? 0),
      answers: sum.answers + (one?.answers ?? 0),
    }),
    NO_PART,
  );

/**
 * What each wrote, how often each raised a hand, and how many questions each answered, by what happened in the room;
 * private words are nobody's to count, nor is an answer where no names are kept.
 */
export function partsIn(events: readonly StoredEvent[]): Map<string, Omit<TakenPart, 'spokenMs'>> {
  const parts = new Map<string, Omit<TakenPart, 'spokenMs'>>();
  const answered = new Set<string>();
  const add = (member: string, what: 'written' | 'hands' | 'answers') => {
    const { spokenMs: _, ...none } = NO_PART;
    const known = parts.get(member) ?? none;
    parts.set(member, { ...known, [what]: known[what] + 1 });
  };
  const nameless = new Set(
    events.flatMap((e) => (e.type === 'asked' && e.question.anonymous ? [e.seq] : [])),
  );
  for (const e of events) {
    if (e.type === 'said' && e.addressee.to !== 'member') add(e.from, 'written');
    if (e.type === 'handRaised') add(e.member, 'hands');
    if (e.type === 'answered' && !nameless.has(e.question) && !answered.has(`${e.question}/${e.member}`)) {
      answered.add(`${e.question}/${e.member}`);
      add(e.member, 'answers');
    }
  }
  return parts;
}

/** How often each was asked by lot; what was passed on does not count. */
export function picksIn(events: readonly StoredEvent[]): Map<string, number> {
  const picks = new Map<string, number>();
  const add = (member: string, more: number) => picks.set(member, (picks.get(member) ?? 0) + more);
  for (const e of events)
    if (e.type === 'picked') {
      add(e.member, 1);
      if (e.insteadOf !== null) add(e.insteadOf, -1);
    }
  return new Map([...picks].filter(([, times]) => times > 0));
}

/** What it is worth, by what a minute, a line, a hand and an answer are; to a tenth. */
export const weighed = (
  { spokenMs, written, hands, answers }: TakenPart,
  {
    perMinute,
    perLine,
    perHand,
    perAnswer,
  }: Pick<AfterValues, 'perMinute' | 'perLine' | 'perHand' | 'perAnswer'>,
): number =>
  Math.round(
    10 * ((spokenMs / 60_000) * perMinute + written * perLine + hands * perHand + answers * perAnswer),
  ) / 10;
