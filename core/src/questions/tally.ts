import { optionsOf, plainly, type Answer, type OnPicture, type Question } from './kinds';

/** What was answered, without by whom. */
export interface Tally {
  answered: number;
  /** How many chose each option; of an order, how many put each option first. */
  counts?: number[] | undefined;
  /** Of an order: each option's place on the average, from 1. */
  places?: number[] | undefined;
  /** Numbers, the smallest first. */
  values?: number[] | undefined;
  /** Words that say the same, the most frequent first. */
  groups?: { text: string; count: number }[] | undefined;
  /** Places on a picture, in an order that says nothing of who gave them. */
  points?: OnPicture[] | undefined;
}

/** So many groups of words are told one by one. */
const MOST_GROUPS = 40;

export function tallyOf(question: Pick<Question, 'kind' | 'options'>, answers: readonly Answer[]): Tally {
  const answered = answers.length;
  if (question.kind === 'number')
    return { answered, values: (answers as number[]).toSorted((a, b) => a - b) };
  if (question.kind === 'words')
    return { answered, groups: alike(answers as string[]).slice(0, MOST_GROUPS) };
  if (question.kind === 'point')
    return { answered, points: (answers as OnPicture[]).toSorted((a, b) => a.x - b.x || a.y - b.y) };
  const options = optionsOf(question);
  const chosen = answers.map((a) => (Array.isArray(a) ? (a as number[]) : [a as number]));
  if (question.kind === 'order')
    return {
      answered,
      counts: options.map((_, o) => chosen.filter((order) => order[0] === o).length),
      places: options.map((_, o) =>
        answered ? chosen.reduce((sum, order) => sum + order.indexOf(o) + 1, 0) / answered : 0,
      ),
    };
  return { answered, counts: options.map((_, o) => chosen.filter((c) => c.includes(o)).length) };
}

/** What was answered, without these words of somebody: gone where nobody else said them. */
export const tallyWithout = (tally: Tally, words: readonly string[]): Tally => {
  const plain = new Set(words.map(plainly));
  const groups = tally.groups?.flatMap((g) =>
    !plain.has(plainly(g.text)) ? [g] : g.count > 1 ? [{ ...g, count: g.count - 1 }] : [],
  );
  return groups ? { ...tally, groups } : tally;
};

/** Answers in words, those that say the same together: alike but for case, accents and marks, or for a slip of the pen. */
export function alike(answers: readonly string[]): { text: string; count: number }[] {
  const groups = new Map<string, { plain: string; text: string; count: number; ways: Map<string, number> }>();
  for (const answer of answers) {
    const text = answer.trim();
    const plain = plainly(text) || text;
    const group = groups.get(plain) ?? { plain, text, count: 0, ways: new Map() };
    group.count++;
    group.ways.set(text, (group.ways.get(text) ?? 0) + 1);
    groups.set(plain, group);
  }
  const sorted = [...groups.values()].sort((a, b) => b.count - a.count);
  const kept: typeof sorted = [];
  for (const group of sorted) {
    const same = kept.find((k) => isSlip(k.plain, group.plain));
    if (same) same.count += group.count;
    else kept.push(group);
  }
  return kept
    .map(({ ways, count }) => ({ text: [...ways].sort((a, b) => b[1] - a[1])[0]![0], count }))
    .sort((a, b) => b.count - a.count);
}

/** Whether one is the other with a letter wrong, missing, too much or changed about; in short words none is. */
function isSlip(a: string, b: string): boolean {
  const length = Math.min(a.length, b.length);
  if (length < 5 || /\d/.test(a + b)) return false;
  return distance(a, b) <= (length < 10 ? 1 : 2);
}

/** Letters to change from one to the other; two that stand the other way round are one change. */
function distance(a: string, b: string): number {
  if (Math.abs(a.length - b.length) > 2) return 3;
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let cost = Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        cost = Math.min(cost, before[j - 2]! + 1);
      next.push(cost);
    }
    before = row;
    row = next;
  }
  return row[b.length]!;
}
