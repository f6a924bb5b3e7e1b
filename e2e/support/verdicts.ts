import { readFileSync } from 'node:fs';
import path from 'node:path';
import { CAPABILITY_IDS } from '@nimble-bell/core/limits';
import { ROOT } from './product';

const GOLDEN = path.join(ROOT, 'core/src/room/verdicts.golden.txt');
export const PHASES = ['waiting', 'on', 'hushed'] as const;
export const HAVING = ['nothing', 'the floor', 'an exception that opens', 'one that closes'] as const;
export type Having = (typeof HAVING)[number];

/** The list that was read by eye: whether somebody may, by capability, state, phase, what they have, and role. */
export function verdictsRead(): Map<string, boolean> {
  const may = new Map<string, boolean>();
  const lines = readFileSync(GOLDEN, 'utf8').trimEnd().split('\n');
  for (let i = 0; i < lines.length; i += 2) {
    const [, at, each] = /^ {2}(.*?): (.*)$/.exec(lines[i + 1]!)!;
    const of = lines[i] === 'everything' ? CAPABILITY_IDS : lines[i]!.split(' ');
    for (const capability of of)
      for (const one of each!.split(', ')) {
        const [role, verdict] = one.split(' ');
        may.set(`${capability}: ${at}: ${role}`, verdict === 'may');
      }
  }
  return may;
}
