import { useSyncExternalStore } from 'react';
import { serverNow } from './clock';

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

let all: readonly Note[] = [];
let shown: readonly Note[] = [];
let next = 1;
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((listener) => listener());

/** Says a sentence to the person, on the page and aloud. The same words again while they stand are said once. */
export function say(words: string, kind: Note['kind'] = 'done') {
  if (shown.some((n) => n.words === words && n.kind === kind)) return;
  const note = { id: next++, words, kind, at: serverNow() };
  all = [note, ...all].slice(0, KEPT);
  shown = [...shown, note].slice(-3);
  tell();
  setTimeout(() => putAway(note.id), kind === 'fault' ? FAULT_MS : DONE_MS);
}

export function putAway(id: number) {
  if (!shown.some((n) => n.id === id)) return;
  shown = shown.filter((n) => n.id !== id);
  tell();
}

/** Nothing was said: between tests. */
export function forgetNotices() {
  all = [];
  shown = [];
  tell();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
/** What stands on the page now, the newest last. */
export const useShown = () => useSyncExternalStore(subscribe, () => shown);
/** What was said lately, the newest first. */
export const useSaid = () => useSyncExternalStore(subscribe, () => all);
