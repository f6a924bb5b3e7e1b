import type { KnownHands } from '@nimble-bell/core/api';
import { Hands, type Hand, type Moved } from '@nimble-bell/core/hands';
import * as Y from 'yjs';
import type { Pool } from 'mysql2/promise';
import { transaction } from '../db/pool';
import { AppError } from '../errors';
import { Turns } from '../turns';
import { asItWas, broughtBy, docOf, momentOf, movedBy, textOf, type Brought } from './read';
import { docHeld, forgetCounts, handsFrom, keyOf, rememberedOf, taken, type Remembered } from './remembered';
import {
  addHands,
  addMoment,
  addMoved,
  addUpdate,
  handsAmong,
  handsOf,
  heldUpdates,
  momentAfter,
  momentsOf,
  movedOf,
  removeUpdates,
  sizeOf,
  updatesOf,
  type DocumentOf,
} from './store';

/** The documents that there are. */
const NAMES = new Set(['notes']);
/** More than a class writes in a lesson. */
const MOST_BYTES = 5_000_000;
/** So many updates are put together into one. */
const TOGETHER = 400;
/** So many times it is kept that letters were only put elsewhere: a class does not come near it. */
const MOST_MOVED = 5000;
/** How it was is noted so often, ms; and sooner before much is taken away. */
const MOMENT_MS = 60_000;
const MUCH = 100;
const SOONER_MS = 5000;

export function knownDocument(name: string) {
  if (!NAMES.has(name)) throw new AppError('not-found', 'There is no such document.');
}

/** Those of one document are put together one after another. */
const turns = new Turns();
/** Many updates become one, without a word lost: a page that opens has little to read. */
const putTogether = (pool: Pool, of: DocumentOf): Promise<void> =>
  turns.take(keyOf(of), () =>
    transaction(pool, async (db) => {
      const held = await heldUpdates(db, of);
      if (held.length <= TOGETHER) return;
      const all = Y.mergeUpdates(held.map((h) => h.body));
      await removeUpdates(
        db,
        of,
        held.map((h) => h.nr),
      );
      await addUpdate(db, of, null, Buffer.from(all));
    }).finally(() => forgetCounts(of)),
  );

/** How it is, before the next change of it. */
const noteMoment = (pool: Pool, of: DocumentOf, state: Remembered, now: number): Promise<void> =>
  turns.take(keyOf(of), async () => {
    await addMoment(pool, of, now, momentOf(await docHeld(pool, of, state)));
  });

const anothers = () => new AppError('invalid', 'This was written by somebody else.');

/**
 * Takes one more update, if it is one: each page would stumble over what is none. What is written in it is by this
 * member, and by nobody else; what they only put elsewhere stays whose it was. Gives whose is what by it.
 */
export async function takeUpdate(
  pool: Pool,
  of: DocumentOf,
  member: string,
  update: Buffer,
  now: number,
): Promise<KnownHands> {
  const brought = broughtBy(update);
  if (!brought) throw new AppError('invalid', 'This is no change of the notes.');
  const { clients, put } = brought;
  const gone = brought.taken.reduce((sum, t) => sum + t.length, 0);
  const state = await rememberedOf(pool, of);
  if (state.bytes + update.length > MOST_BYTES) throw new AppError('too-large', 'The notes are full.');
  const known = await handsFrom(pool, of, state, clients);
  const isTheirs = (hand: Hand) => hand.member === member;
  if (!known.every(isTheirs)) throw anothers();
  const often = gone >= MUCH ? SOONER_MS : MOMENT_MS;
  // The first of all is how it was before anything stood there.
  if (state.noted === null || now - state.noted >= often) {
    state.noted = now;
    await noteMoment(pool, of, state, now);
  }
  const anew = clients.filter((c) => !known.some((h) => h.client === c));
  const moved = put.length && gone ? await movedIn(pool, of, state, brought) : [];
  if (anew.length || moved.length)
    await transaction(pool, async (db) => {
      if (anew.length) {
        await addHands(db, of, member, anew);
        // Somebody else may have been the first meanwhile.
        if (!(await handsAmong(db, of, anew)).every(isTheirs)) throw anothers();
      }
      if (moved.length) await addMoved(db, of, moved);
      await addUpdate(db, of, member, update);
    });
  else await addUpdate(pool, of, member, update);
  taken(state, update);
  for (const client of clients) state.hands.set(client, member);
  if (state.updates > 2 * TOGETHER) await putTogether(pool, of);
  return { hands: anew.map((client) => ({ client, member })), moved };
}

async function movedIn(pool: Pool, of: DocumentOf, state: Remembered, brought: Brought): Promise<Moved[]> {
  const [doc, { hands, moved }] = await Promise.all([docHeld(pool, of, state), knownOf(pool, of)]);
  return moved.length < MOST_MOVED ? movedBy(brought, doc, new Hands(hands, moved)) : [];
}

/** Whose is what in a document. */
export async function knownOf(pool: Pool, of: DocumentOf): Promise<KnownHands> {
  const [hands, moved] = await Promise.all([handsOf(pool, of), movedOf(pool, of)]);
  return { hands, moved };
}

/** All of a document, in few updates, and whose hands it is by. */
export async function openDocument(pool: Pool, of: DocumentOf): Promise<KnownHands & { updates: Buffer[] }> {
  const { updates } = await sizeOf(pool, of);
  if (updates > TOGETHER) await putTogether(pool, of);
  return { updates: await updatesOf(pool, of), ...(await knownOf(pool, of)) };
}

/** How it was until an instant, as one update; or the instants at which that is known. */
export async function documentThen(pool: Pool, of: DocumentOf, at: number | null) {
  if (at === null) return { moments: await momentsOf(pool, of), updates: [] };
  const update = Y.encodeStateAsUpdate(await documentAt(pool, of, at));
  return { moments: [], updates: [Buffer.from(update).toString('base64')] };
}

/**
 * A document as it was until that instant, or as it is where it did not change since. `kept`: of what stood there then only
 * what nobody has taken away since.
 */
async function documentAt(pool: Pool, of: DocumentOf, at: number, kept = false): Promise<Y.Doc> {
  const [updates, moment] = await Promise.all([updatesOf(pool, of), momentAfter(pool, of, at)]);
  const doc = docOf(updates);
  return moment ? asItWas(doc, moment.body, kept) : doc;
}

/** What was read of documents at moments: a class that watches a recording asks for the same again and again. */
const read = new Map<string, Promise<string>>();
const MOST_READ = 300;

/** What stood in a document until that instant. */
export async function textAt(pool: Pool, of: DocumentOf, at: number, kept: boolean): Promise<string> {
  const [moment, { bytes, updates }] = await Promise.all([momentAfter(pool, of, at), sizeOf(pool, of)]);
  const key = [keyOf(of), moment?.at ?? 'now', bytes, updates, kept].join(' ');
  const known = read.get(key);
  if (known) return known;
  const text = documentAt(pool, of, at, kept).then(textOf);
  read.set(key, text);
  if (read.size > MOST_READ) read.delete(read.keys().next().value!);
  text.catch(() => read.delete(key));
  return text;
}
