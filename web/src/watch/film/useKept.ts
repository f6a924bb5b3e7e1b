import { useState } from 'react';
import { z } from 'zod';
import { VIEWS } from './seen';

export const SPEEDS = [0.5, 0.75, 1, 1.25, 1.5, 1.75, 2, 2.5, 3] as const;
export const SIZES = ['plain', 'large', 'largest'] as const;

/** How somebody watches, kept in their browser from one recording to the next. */
const Kept = z.object({
  speed: z
    .number()
    .refine((n) => SPEEDS.some((s) => s === n))
    .catch(1),
  view: z.enum(VIEWS).catch('screen'),
  /** Language of the captions that are shown; none where it is empty. */
  captions: z.string().max(35).catch(''),
  size: z.enum(SIZES).catch('plain'),
  silences: z.boolean().catch(false),
  volume: z.number().min(0).max(1).catch(1),
});
export type Kept = z.infer<typeof Kept>;

const PLACE = 'watching';

function read(): Kept {
  try {
    return Kept.parse(JSON.parse(localStorage.getItem(PLACE) ?? '{}'));
  } catch {
    return Kept.parse({});
  }
}

export type Keep = (change: Partial<Kept> | ((kept: Kept) => Partial<Kept>)) => void;

export function useKept(): [Kept, Keep] {
  const [kept, setKept] = useState(read);
  const keep: Keep = (change) =>
    setKept((before) => {
      const next = { ...before, ...(typeof change === 'function' ? change(before) : change) };
      localStorage.setItem(PLACE, JSON.stringify(next));
      return next;
    });
  return [kept, keep];
}
