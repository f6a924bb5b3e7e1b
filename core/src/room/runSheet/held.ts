/** A segment that was held, in whichever session; instants in ms. */
export interface Held {
  title: string;
  /** As planned. */
  minutes: number;
  from: number;
  until: number;
}

/** How a segment went over a term, under its title; minutes. */
export interface Taken {
  title: string;
  times: number;
  /** In the mean. */
  planned: number;
  took: number;
  longest: number;
}

/** What is called the same is the same segment, whatever its capitals; in the order in which they were first held. */
export function takenBySegment(held: readonly Held[]): Taken[] {
  const known = new Map<string, { title: string; planned: number[]; took: number[] }>();
  for (const { title, minutes, from, until } of held) {
    const key = title.trim().toLowerCase();
    const of = known.get(key) ?? { title, planned: [], took: [] };
    of.planned.push(minutes);
    of.took.push((until - from) / 60_000);
    known.set(key, of);
  }
  const mean = (all: readonly number[]) => all.reduce((sum, n) => sum + n, 0) / all.length;
  return [...known.values()].map(({ title, planned, took }) => ({
    title,
    times: took.length,
    planned: mean(planned),
    took: mean(took),
    longest: Math.max(...took),
  }));
}
