import * as Y from 'yjs';

/** Blocks in which one writes. */
const WRITTEN_IN: ReadonlySet<string> = new Set(['paragraph', 'heading', 'codeBlock']);

/**
 * Gives each block that this page makes its text at once, empty as it is. Otherwise everybody who begins to write in it makes one of
 * their own; these are put together afterwards, and what somebody was writing in theirs goes with it.
 */
export function fillsBlocks(doc: Y.Doc): void {
  doc.on('afterTransaction', ({ local, changed, beforeState }: Y.Transaction) => {
    if (!local) return;
    const empty: Y.XmlElement[] = [];
    const look = (parent: Y.XmlElement | Y.XmlFragment) => {
      for (const child of parent.toArray()) {
        if (!(child instanceof Y.XmlElement)) continue;
        const { id } = child._item!;
        const isNew = id.client === doc.clientID && id.clock >= (beforeState.get(id.client) ?? 0);
        if (isNew && child.length === 0 && WRITTEN_IN.has(child.nodeName)) empty.push(child);
        look(child);
      }
    };
    for (const type of changed.keys())
      if (type instanceof Y.XmlFragment && !(type instanceof Y.XmlText)) look(type);
    if (empty.length) doc.transact(() => empty.forEach((block) => block.insert(0, [new Y.XmlText()])));
  });
}
