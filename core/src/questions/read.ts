import { letterOf, MOST_OPTIONS, optionsOf, type Question, type QuestionKind } from './kinds';

/** A choice in a line of its own: by a letter, a number, a dash, or a box that may be ticked. */
const CHOICE = /^(?:\(?([a-j]|\d{1,2})[).:]|[-–•*○□☐]|\[([ x])\])\s+(.+)$/i;
/** The mark of the right one, at the end of a choice. */
const MARKED = /\s*(?:\*|✓|✔|\(right\)|\(correct\))$/i;
const SEVERAL =
  /\b(?:all that (?:apply|are)|several|which (?:of these |of the following )?are|choose (?:two|three|all)|more than one)\b/i;
const ORDER =
  /\b(?:in(?:to)? (?:the (?:right |correct )?)?order|arrange|rank|sort (?:these|them)|sequence)\b/i;
const NUMBER =
  /\b(?:how (?:many|far|high|deep|tall|old|fast|heavy|wide)|what (?:percentage|per cent|number)|(?:what|which) year)\b/i;
const TRUE_FALSE = /\s*\(?\btrue\s*(?:or|\/)\s*false\b\)?\s*[:?.]?\s*/i;
const YES_NO = /\s*\(?\byes\s*(?:or|\/)\s*no\b\)?\s*[:?.]?\s*/i;
const VERB =
  /^(?:is|are|was|were|do|does|did|can|could|will|would|should|has|have|had|may|must|isn['’]t|aren['’]t)\b/i;
const LONGEST_TEXT = 500;

type Read = Pick<Question, 'text' | 'kind' | 'options' | 'right'>;

interface Choice {
  text: string;
  label: string | null;
  right: boolean;
  box: boolean;
}

function choiceOf(line: string): Choice | null {
  const match = CHOICE.exec(line);
  if (!match) return null;
  const [, label, box, rest] = match;
  return {
    text: rest!.replace(MARKED, '').trim(),
    label: label?.toLowerCase() ?? null,
    right: box?.toLowerCase() === 'x' || MARKED.test(rest!),
    box: box !== undefined,
  };
}

/** Whether letters or numbers follow one another from the first. */
function inSequence(choices: readonly Choice[]): boolean {
  const of = ({ label }: Choice) =>
    label === null ? null : /\d/.test(label) ? Number(label) - 1 : label.charCodeAt(0) - 97;
  return choices.every((c, i) => of(c) === null || of(c) === i);
}

/** "Which? A) this B) that C) those" in lines, as if it had been written below one another. */
function linesOf(text: string): string[] {
  const lines = text.split('\n').map((l) => l.trim());
  return lines.filter(Boolean).flatMap((line) => {
    if (!/(?:^|\s)\(?A[).:]\s/.test(line) || !/\s\(?B[).:]\s/.test(line)) return [line];
    const parts = line.split(/(?:^|\s+)(?=\(?[A-J][).:]\s)/).map((p) => p.trim());
    return parts.filter(Boolean);
  });
}

/** The question in a longer text: its last sentence that asks; or all of it. */
function asked(lines: readonly string[]): string {
  const text = lines.join(' ');
  const sentences = text.match(/[^.!?]+[.!?]+|[^.!?]+$/g) ?? [text];
  const asks = sentences.findLast((s) => s.trim().endsWith('?'));
  return (lines.length > 1 && asks ? asks : text).trim().slice(0, LONGEST_TEXT);
}

function withChoices(stem: string, choices: readonly Choice[]): Read {
  const right = choices.flatMap((c, i) => (c.right ? [i] : []));
  const kind: QuestionKind = ORDER.test(stem)
    ? 'order'
    : SEVERAL.test(stem) || right.length > 1 || choices.some((c) => c.box)
      ? 'several'
      : 'one';
  const options = choices.map((c) => c.text.slice(0, 200));
  const said = kind === 'order' || !right.length ? null : kind === 'several' ? right : right[0]!;
  return asPlain({ text: stem, kind, options, right: said });
}

/** Choices that are no more than yes and no, or true and false, are that. */
function asPlain(read: Read): Read {
  if (read.kind !== 'one') return read;
  for (const kind of ['yesNo', 'trueFalse'] as const)
    if (read.options.join().toLowerCase() === optionsOf({ kind, options: [] }).join().toLowerCase())
      return { ...read, kind, options: [] };
  return read;
}

/** "…: flood, ebb or slack?" */
function listed(text: string): string[] | null {
  const list = /:\s*([^:]+?)\s*\?$/.exec(text)?.[1];
  const parts = list?.split(/\s*,\s*(?:or\s+)?|\s+or\s+/).filter(Boolean) ?? [];
  return parts.length >= 2 && parts.length <= MOST_OPTIONS && /\bor\b/.test(list!) ? parts : null;
}

const plain = (text: string, kind: QuestionKind, options: string[] = []): Read => ({
  text,
  kind,
  options,
  right: null,
});

function withoutChoices(text: string): Read {
  if (TRUE_FALSE.test(text)) return plain(text.replace(TRUE_FALSE, ' ').trim(), 'trueFalse');
  if (YES_NO.test(text)) return plain(text.replace(YES_NO, ' ').trim(), 'yesNo');
  const options = listed(text);
  if (options) return plain(text.slice(0, text.lastIndexOf(':')).trim(), 'one', options);
  if (NUMBER.test(text)) return plain(text, 'number');
  if (VERB.test(text) && text.endsWith('?') && !/\bor\b/i.test(text)) return plain(text, 'yesNo');
  return plain(text, 'words');
}

/**
 * The question that stands in a text: one that was typed, or a slide's. Choices are found by their letters, numbers or
 * dashes, or after a colon; the right one where it is marked; and what kind it is by what it asks. Null where nothing is
 * written.
 */
export function readQuestion(text: string): Read | null {
  const lines = linesOf(text);
  if (!lines.length) return null;
  const all = lines.map(choiceOf);
  const first = all.findIndex(Boolean);
  const last = all.findLastIndex(Boolean);
  const choices = all.slice(first, last + 1);
  const whole = first >= 0 && choices.length >= 2 && choices.every((c) => c !== null);
  if (whole && choices.length <= MOST_OPTIONS && inSequence(choices)) {
    const stem = asked([...lines.slice(0, first), ...lines.slice(last + 1)]);
    return withChoices(stem, choices);
  }
  return withoutChoices(asked(lines));
}

/** A question as one would write it down: read again it is the same, but for its kind where that is not to be read. */
export function writtenAs({
  text,
  kind,
  options,
  right,
}: Pick<Question, 'text' | 'kind' | 'options' | 'right'>): string {
  const isRight = (i: number) => kind !== 'order' && (Array.isArray(right) ? right.includes(i) : right === i);
  return [text, ...options.map((o, i) => `${letterOf(i)}) ${o}${isRight(i) ? ' *' : ''}`)].join('\n');
}
