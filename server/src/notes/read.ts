import { movedIn, type Hands, type Letter, type Letters, type Moved } from '@nimble-bell/core/hands';
import * as Y from 'yjs';

/** A document as its updates make it, with all that was ever in it. */
export function docOf(updates: readonly Uint8Array[]): Y.Doc {
  const doc = new Y.Doc({ gc: false });
  for (const update of updates) Y.applyUpdate(doc, update);
  return doc;
}

/** A change in more pieces than this is no break or list of somebody's: all that it puts is by whoever puts it. */
const MOST_PIECES = 300;

/** The largest number of a client (Yjs gives 32 bits). */
const MOST_CLIENT = 0xffff_ffff;

/** What an update brings. */
export interface Brought {
  /** The clients by which something is written. */
  clients: number[];
  /** The letters that are put. */
  put: (Letters & { text: string })[];
  /** What is taken away: so many from a clock of a client on. */
  taken: Letters[];
}

/** What an update brings; null where it is none. */
export function broughtBy(update: Uint8Array): Brought | null {
  try {
    Y.applyUpdate(new Y.Doc(), update);
    const { structs, ds } = Y.decodeUpdate(update);
    const clients = structs.filter((s) => !(s instanceof Y.Skip)).map((s) => s.id.client);
    if (clients.some((c) => c > MOST_CLIENT)) return null;
    const put = structs.flatMap((s) => {
      if (!(s instanceof Y.Item) || !(s.content instanceof Y.ContentString)) return [];
      return [{ ...s.id, length: s.length, text: s.content.str }];
    });
    const taken = [...ds.clients].flatMap(([client, all]) =>
      all.map(({ clock, len }) => ({ client, clock, length: len })),
    );
    return { clients: [...new Set(clients)], put, taken };
  } catch {
    return null;
  }
}

/** All that stands in a document at this moment, as one that was at another; to be kept. */
export const momentOf = (doc: Y.Doc): Buffer => Buffer.from(Y.encodeSnapshot(Y.snapshot(doc)));

/** A document as it was, from all that was ever in it; `kept`: without what was taken away since. */
export function asItWas(doc: Y.Doc, moment: Uint8Array, kept: boolean): Y.Doc {
  const then = Y.decodeSnapshot(moment);
  return Y.createDocFromSnapshot(doc, kept ? Y.createSnapshot(Y.snapshot(doc).ds, then.sv) : then);
}

type Node = Y.XmlElement | Y.XmlText | Y.XmlHook;
const nodesOf = (doc: Y.Doc) => doc.getXmlFragment('default').toArray() as Node[];

/** What stands in a document, a line for each of its paragraphs; what is in a list begins with a stroke. */
export function textOf(doc: Y.Doc): string {
  const lines: string[] = [];
  const walk = (node: Node, inList: boolean) => {
    if (node instanceof Y.XmlText) {
      const text = (node.toDelta() as { insert: unknown }[]).map((d) => String(d.insert)).join('');
      lines.push(inList ? `– ${text}` : text);
      return;
    }
    if (!(node instanceof Y.XmlElement)) return;
    const list = inList || node.nodeName === 'listItem';
    if (node.length === 0 && node.nodeName === 'paragraph') lines.push('');
    for (const child of node.toArray()) walk(child as Node, list);
  };
  for (const node of nodesOf(doc)) walk(node, false);
  return lines.join('\n').trim();
}

/** The letters of each run of text that stands in a document, in its order. */
function runsOf(doc: Y.Doc): (Letters & { text: string })[][] {
  const runs: (Letters & { text: string })[][] = [];
  const walk = (node: Node) => {
    if (node instanceof Y.XmlElement) for (const child of node.toArray()) walk(child as Node);
    if (!(node instanceof Y.XmlText)) return;
    const run: (Letters & { text: string })[] = [];
    for (let item = node._start; item; item = item.right)
      if (!item.deleted && item.content instanceof Y.ContentString)
        run.push({
          ...{ client: item.id.client, clock: item.id.clock, length: item.length },
          text: item.content.str,
        });
    runs.push(run);
  };
  for (const node of nodesOf(doc)) walk(node);
  return runs;
}

/** How many letters of what stands in a document are by each; by null of nobody who is known. */
export function lettersBy(doc: Y.Doc, hands: Hands): Map<string | null, number> {
  const letters = new Map<string | null, number>();
  for (const { member, length } of runsOf(doc)
    .flat()
    .flatMap((run) => hands.of(run)))
    letters.set(member, (letters.get(member) ?? 0) + length);
  return letters;
}

/** What an update only puts elsewhere in a document: a break, a heading and a list take letters away and put them anew. */
export function movedBy({ put, taken }: Brought, doc: Y.Doc, hands: Hands): Moved[] {
  if (put.length > MOST_PIECES || taken.length > MOST_PIECES) return [];
  const goes = new Map<number, Letters[]>();
  for (const t of taken) goes.set(t.client, [...(goes.get(t.client) ?? []), t]);
  const takenOf = ({ client, clock, length }: Letters) =>
    goes.get(client)?.filter((t) => t.clock < clock + length && clock < t.clock + t.length) ?? [];
  const out = runsOf(doc).map((run) =>
    run.flatMap((letters) => {
      const gone = takenOf(letters);
      if (!gone.length) return [];
      const members = hands.of(letters).flatMap((w) => Array<string | null>(w.length).fill(w.member));
      return members.flatMap((member, i): Letter[] => {
        const at = letters.clock + i;
        const isGone = gone.some((t) => at >= t.clock && at < t.clock + t.length);
        return isGone ? [{ text: letters.text[i]!, member }] : [];
      });
    }),
  );
  return movedIn(
    put,
    out.filter((run) => run.length),
  );
}
