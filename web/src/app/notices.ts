import { serverNow } from './clock';
import { told } from './told';

/** What was done, or what failed, in a sentence for the person. */
export interface Note {
  id: number;
  words: string;
  kind: 'done' | 'fault';
  at: number;
}

/** As many as one can look back at. */
const KEPT = 12;
const DONE_MS = 7000;
/** A fault is read longer; it is taken away by hand at any time. */
const FAULT_MS = 20_000;

const said = told<readonly Note[]>([]);
const shown = told<readonly Note[]>([]);
let next = 1;

/** Says a sentence to the person, on the page and aloud. The same words again while they stand are said once. */
export function say(words: string, kind: Note['kind'] = 'done') {
  if (shown.get().some((n) => n.words === words && n.kind === kind)) return;
  const note = { id: next++, words, kind, at: serverNow() };
  said.set([note, ...said.get()].slice(0, KEPT));
  shown.set([...shown.get(), note].slice(-3));
  setTimeout(() => putAway(note.id), kind === 'fault' ? FAULT_MS : DONE_MS);
}

export function putAway(id: number) {
  const left = shown.get().filter((n) => n.id !== id);
  if (left.length < shown.get().length) shown.set(left);
}

/** Nothing was said: between tests. */
export function forgetNotices() {
  said.set([]);
  shown.set([]);
}

/** What stands on the page now, the newest last. */
export const useShown = shown.use;
/** What was said lately, the newest first. */
export const useSaid = said.use;
