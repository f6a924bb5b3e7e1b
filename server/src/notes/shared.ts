import * as Y from 'yjs';
import type { Pool } from 'mysql2/promise';
import { transaction } from '../db/pool';
import { AppError } from '../errors';
import { Turns } from '../turns';
import { addUpdate, heldUpdates, removeUpdates, sizeOf, updatesOf, type DocumentOf } from './store';

/** The documents that there are. */
const NAMES = new Set(['notes']);
/** More than a class writes in a lesson. */
const MOST_BYTES = 5_000_000;
/** So many updates are put together into one. */
const TOGETHER = 400;

export function knownDocument(name: string) {
  if (!NAMES.has(name)) throw new AppError('not-found', 'There is no such document.');
}

/** Those of one document are put together one after another. */
const turns = new Turns();

/** Many updates become one, without a word lost: a page that opens has little to read. */
const putTogether = (pool: Pool, of: DocumentOf): Promise<void> =>
  turns.take(`${of.session} ${of.place} ${of.name}`, () =>
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
    }),
  );

/** Takes one more update, if it is one: each page would stumble over what is none. */
export async function takeUpdate(pool: Pool, of: DocumentOf, member: string, update: Buffer): Promise<void> {
  try {
    Y.applyUpdate(new Y.Doc(), update);
  } catch {
    throw new AppError('invalid', 'This is no change of the notes.');
  }
  const { bytes, updates } = await sizeOf(pool, of);
  if (bytes + update.length > MOST_BYTES) throw new AppError('too-large', 'The notes are full.');
  await addUpdate(pool, of, member, update);
  if (updates > 2 * TOGETHER) await putTogether(pool, of);
}

/** All of a document, in few updates. */
export async function openDocument(pool: Pool, of: DocumentOf): Promise<Buffer[]> {
  const { updates } = await sizeOf(pool, of);
  if (updates > TOGETHER) await putTogether(pool, of);
  return updatesOf(pool, of);
}

/** What stands in a document, a line for each of its paragraphs; what is in a list begins with a stroke. */
export function textOf(updates: readonly Uint8Array[]): string {
  const doc = new Y.Doc();
  for (const update of updates) Y.applyUpdate(doc, update);
  const lines: string[] = [];
  const walk = (node: Y.XmlElement | Y.XmlText | Y.XmlHook, inList: boolean) => {
    if (node instanceof Y.XmlText) {
      const text = (node.toDelta() as { insert: unknown }[]).map((d) => String(d.insert)).join('');
      lines.push(inList ? `– ${text}` : text);
      return;
    }
    if (!(node instanceof Y.XmlElement)) return;
    const list = inList || node.nodeName === 'listItem';
    if (node.length === 0 && node.nodeName === 'paragraph') lines.push('');
    for (const child of node.toArray()) walk(child as Y.XmlElement, list);
  };
  for (const node of doc.getXmlFragment('default').toArray()) walk(node as Y.XmlElement, false);
  return lines.join('\n').trim();
}
