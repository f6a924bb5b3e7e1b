/** How long the names pass, ms. */
export const PASSING_MS = 3000;
/** So many names pass. */
const NAMES = 16;

/** Which name is seen so long after the lot was drawn: they pass more and more slowly. From 0; the last is who is asked. */
export function passingAt(ms: number): number {
  const share = Math.min(1, Math.max(0, ms / PASSING_MS));
  return Math.min(NAMES, Math.floor((NAMES + 1) * (1 - (1 - share) ** 2.2)));
}

/** The names that pass: everybody's in turn from a place that the lot gives, and at last who is asked. */
export function namesPassing(names: readonly string[], picked: string, at: number): string[] {
  const others = names.filter((n) => n !== picked);
  const from = Math.floor(at / 1000) % Math.max(1, others.length);
  const passing = Array.from(
    { length: others.length ? NAMES : 0 },
    (_, i) => others[(from + i) % others.length]!,
  );
  return [...passing, picked];
}
