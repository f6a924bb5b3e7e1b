import { told } from './told';

/** How things stand with the server: what the person should know until it is over. */
export interface Line {
  /** It does not answer. */
  away: boolean;
  /** When what is shown was kept, where it came from this device in place of the server; ms. */
  keptAt: number | null;
  /** Whoever was signed in is not any more. */
  signedOut: boolean;
  /** Changes that were not answered: each sends itself again. */
  unsent: readonly Unsent[];
}

export interface Unsent {
  id: string;
  again: () => Promise<unknown>;
}

const line = told<Line>({ away: false, keptAt: null, signedOut: false, unsent: [] });

function set(more: Partial<Line>) {
  const known = line.get();
  const keys = Object.keys(more) as (keyof Line)[];
  if (keys.some((key) => known[key] !== more[key])) line.set({ ...known, ...more });
}

/** An answer came; from this device, if it says when it was kept. */
export const heard = (keptAt: number | null) => set(keptAt === null ? { away: false, keptAt } : { keptAt });
/** No answer came. */
export const unheard = () => set({ away: true });
/** The server knows nobody here. */
export const strange = () => set({ signedOut: true });
export const known = () => set({ signedOut: false });

/** A change that was not answered is kept until it is. The same one is kept once. */
export const keepUnsent = (id: string, again: Unsent['again']) =>
  set({ unsent: [...line.get().unsent.filter((u) => u.id !== id), { id, again }] });
export const sent = (id: string) => {
  const { unsent } = line.get();
  if (unsent.some((u) => u.id === id)) set({ unsent: unsent.filter((u) => u.id !== id) });
};

export const theLine = line.get;
export const useLine = line.use;

/** As when a page is opened: between tests. */
export const resetLine = () => set({ away: false, keptAt: null, signedOut: false, unsent: [] });
