import type { Hands } from '@nimble-bell/core/hands';
import * as Y from 'yjs';

/** A run of letters in the editor's document, by whom it is. */
export interface Run {
  from: number;
  to: number;
  member: string | null;
}

type Node = Y.XmlElement | Y.XmlText | Y.XmlHook;

/**
 * By whom each letter was written, in the positions of ProseMirror: a node with something in it has a place before
 * and after, a leaf has one. Runs that follow one another by the same are one.
 */
export function writtenIn(fragment: Y.XmlFragment, hands: Hands, isLeaf: (name: string) => boolean): Run[] {
  const runs: Run[] = [];
  let at = 0;
  const walk = (node: Node) => {
    if (node instanceof Y.XmlText) {
      for (let item = node._start; item; item = item.right) {
        if (item.deleted || !item.countable) continue;
        for (const { member, length } of hands.of({ ...item.id, length: item.length })) {
          const before = runs.at(-1);
          if (before?.to === at && before.member === member) before.to += length;
          else runs.push({ from: at, to: at + length, member });
          at += length;
        }
      }
    } else if (node instanceof Y.XmlElement) {
      const leaf = isLeaf(node.nodeName);
      at++;
      if (leaf) return;
      for (const child of node.toArray()) walk(child as Node);
      at++;
    }
  };
  for (const node of fragment.toArray()) walk(node as Node);
  return runs;
}

/** How many letters each wrote, the most first. */
export function lettersOf(runs: readonly Run[]): { member: string | null; letters: number }[] {
  const letters = new Map<string | null, number>();
  for (const { member, from, to } of runs) letters.set(member, (letters.get(member) ?? 0) + to - from);
  return [...letters].map(([member, n]) => ({ member, letters: n })).sort((a, b) => b.letters - a.letters);
}
