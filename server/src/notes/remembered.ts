import { performance } from 'node:perf_hooks';
import type { Hand } from '@nimble-bell/core/hands';
import type { Pool } from 'mysql2/promise';
import * as Y from 'yjs';
import { docOf } from './read';
import { handsAmong, sizeOf, updatesOf, type DocumentOf } from './store';

/** So long it holds what was asked of the store, ms; of so many documents. */
const HOLDS_MS = 5000;
const MOST = 300;
/** Of so many bytes of documents the document itself is held. */
const MOST_BYTES = 60_000_000;

/**
 * What is known of a document that is being written in. One server at a time takes what is written in a room, so its own
 * count is right until it asks again; and whose a client is never changes to somebody else.
 */
export interface Remembered {
  bytes: number;
  updates: number;
  /** Since when it is known how it was; null where nothing is. */
  noted: number | null;
  hands: Map<number, string>;
  /** The document itself, once it was asked for; what is taken from then on is put into it. */
  doc: Promise<Y.Doc> | null;
  asked: number;
}

const all = new Map<string, Remembered>();
export const keyOf = ({ session, place, name }: DocumentOf) => `${session} ${place} ${name}`;

export async function rememberedOf(pool: Pool, of: DocumentOf): Promise<Remembered> {
  const key = keyOf(of);
  const known = all.get(key);
  const now = performance.now();
  if (known && now - known.asked < HOLDS_MS) return known;
  const counted = await sizeOf(pool, of);
  // Somebody else has written in it, or put it together: what is held may not be all of it.
  const same = known && counted.bytes === known.bytes && counted.updates === known.updates;
  const next: Remembered = {
    ...counted,
    ...{ hands: known?.hands ?? new Map<number, string>(), doc: same ? known.doc : null, asked: now },
  };
  all.delete(key);
  all.set(key, next);
  if (all.size > MOST) all.delete(all.keys().next().value!);
  return next;
}

/** The document, held from now on. */
export function docHeld(pool: Pool, of: DocumentOf, state: Remembered): Promise<Y.Doc> {
  if (state.doc) return state.doc;
  let bytes = state.bytes;
  for (const other of [...all.values()].reverse()) {
    if (other.doc) bytes += other.bytes;
    if (bytes > MOST_BYTES) other.doc = null;
  }
  const making = updatesOf(pool, of).then(docOf);
  state.doc = making;
  // What could not be made is made again when it is asked for.
  making.catch(() => (state.doc = state.doc === making ? null : state.doc));
  return making;
}

/** One more update was taken: by this server, and now by what it holds. */
export function taken(state: Remembered, update: Uint8Array): void {
  state.bytes += update.length;
  state.updates++;
  void state.doc?.then((doc) => Y.applyUpdate(doc, update)).catch(() => {});
}

/** It is asked anew. */
export const forgetCounts = (of: DocumentOf): void => {
  const known = all.get(keyOf(of));
  if (known) known.asked = -Infinity;
};

/** Whose these clients are, as far as somebody has written by them. */
export async function handsFrom(
  pool: Pool,
  of: DocumentOf,
  { hands }: Remembered,
  clients: readonly number[],
): Promise<Hand[]> {
  const unknown = clients.filter((c) => !hands.has(c));
  const asked = unknown.length ? await handsAmong(pool, of, unknown) : [];
  for (const { client, member } of asked) if (member) hands.set(client, member);
  const held = clients.flatMap((client) =>
    hands.has(client) ? [{ client, member: hands.get(client)! }] : [],
  );
  return [...held, ...asked.filter((h) => h.member === null)];
}
