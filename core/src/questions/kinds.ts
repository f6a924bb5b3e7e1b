/** What is asked: of a word, of a choice, of a number, of an order, of a place on the picture that all look at. */
export const QUESTION_KINDS = [
  'yesNo',
  'trueFalse',
  'one',
  'several',
  'number',
  'words',
  'order',
  'point',
] as const;
export type QuestionKind = (typeof QUESTION_KINDS)[number];

export const KIND_WORDS: Readonly<Record<QuestionKind, string>> = {
  yesNo: 'Yes or no',
  trueFalse: 'True or false',
  one: 'One of these',
  several: 'Several of these',
  number: 'A number',
  words: 'In words',
  order: 'In order',
  point: 'On the picture',
};

/** The most that can be chosen from. */
export const MOST_OPTIONS = 10;

/** A place on a picture, as fractions of its width and height. */
export interface OnPicture {
  x: number;
  y: number;
}

/** An index of an option; several indexes, in their order; a number; words; or a place on a picture: by the question's kind. */
export type Answer = number | number[] | string | OnPicture;

/** What a place is asked of: a page of slides, or a side of the class's board. */
export type Picture =
  | { of: 'page'; deck: { id: string; name: string; kind: 'pdf' | 'picture'; pages: number }; page: number }
  | { of: 'board'; side: number };

/** What is asked of a class. */
export interface Question {
  text: string;
  kind: QuestionKind;
  /** What is chosen from, or put in order; an empty one is known by its letter alone. */
  options: string[];
  /** The right answer; null where there is none, or where it is not known to whoever has this. */
  right: Answer | null;
  /** Nobody is told who gave which answer. */
  anonymous: boolean;
  /** What was before everybody when a place on it was asked for. */
  picture?: Picture | undefined;
}

const FIXED: Partial<Record<QuestionKind, readonly string[]>> = {
  yesNo: ['Yes', 'No'],
  trueFalse: ['True', 'False'],
};

/** What can be chosen, as it is read; of a number and of words nothing. */
export const optionsOf = ({ kind, options }: Pick<Question, 'kind' | 'options'>): readonly string[] =>
  FIXED[kind] ?? (kind === 'number' || kind === 'words' || kind === 'point' ? [] : options);

/** "A", "B", … */
export const letterOf = (option: number): string => String.fromCharCode(65 + option);

const isOption = (value: unknown, of: number): value is number =>
  Number.isInteger(value) && (value as number) >= 0 && (value as number) < of;

const inside = (n: number) => n >= 0 && n <= 1;
const isOnPicture = (answer: Answer): answer is OnPicture =>
  typeof answer === 'object' && !Array.isArray(answer);

/** The third of a picture, across and down, that a place is in: "Top left". */
export const thirdOf = ({ x, y }: OnPicture): string => THIRDS[thirdAt(y) * 3 + thirdAt(x)]!;
const thirdAt = (n: number) => Math.min(2, Math.floor(n * 3));
/** The thirds of a picture, row by row. */
export const THIRDS = ['Top', 'Middle', 'Bottom'].flatMap((row) =>
  ['left', 'middle', 'right'].map((column) =>
    row === 'Middle' && column === 'middle' ? 'In the middle' : `${row} ${column}`,
  ),
);

/** Whether this can be an answer to it at all. */
export function fits(question: Pick<Question, 'kind' | 'options'>, answer: Answer): boolean {
  const { length } = optionsOf(question);
  const { kind } = question;
  if (kind === 'point') return isOnPicture(answer) && inside(answer.x) && inside(answer.y);
  if (kind === 'words') return typeof answer === 'string' && answer.trim() !== '';
  if (kind === 'number') return typeof answer === 'number' && Number.isFinite(answer);
  if (kind === 'several' || kind === 'order')
    return (
      Array.isArray(answer) &&
      answer.every((a) => isOption(a, length)) &&
      new Set(answer).size === answer.length &&
      (kind === 'several' ? answer.length > 0 : answer.length === length)
    );
  return isOption(answer, length);
}

/** What is wrong with a question, in words; null where it can be asked. */
export function questionFault({ kind, options, right }: Question): string | null {
  const chosen = kind === 'one' || kind === 'several' || kind === 'order';
  if (chosen && options.length < 2) return 'Give at least two to choose from.';
  if (chosen && options.length > MOST_OPTIONS) return `Give at most ${MOST_OPTIONS} to choose from.`;
  const said = options.filter((o) => o.trim()).map((o) => o.trim().toLowerCase());
  if (chosen && new Set(said).size < said.length) return 'Two of the choices are the same.';
  if (kind === 'order' && said.length < options.length) return 'Say what is to be put in order.';
  if (right !== null && !fits({ kind, options }, right)) return 'The right answer is none of the answers.';
  return null;
}

/** Whether an answer is the right one; null where there is none. */
export function isRight({ kind, right }: Question, answer: Answer): boolean | null {
  if (right === null) return null;
  if (kind === 'words') return plainly(String(right)) === plainly(String(answer));
  if (kind === 'several')
    return (
      (right as number[]).length === (answer as number[]).length &&
      (right as number[]).every((r) => (answer as number[]).includes(r))
    );
  return JSON.stringify(right) === JSON.stringify(answer);
}

/** Words as they are compared: without case, accents, marks, and the small words before them. */
export const plainly = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
    .replace(/^(?:the|a|an) (?=.)/, '');

/** An answer as it reads. */
export function answerWords(question: Pick<Question, 'kind' | 'options'>, answer: Answer): string {
  if (isOnPicture(answer)) {
    const share = (n: number) => `${Math.round(100 * n)} %`;
    return `${thirdOf(answer)} (${share(answer.x)} across, ${share(answer.y)} down)`;
  }
  const options = optionsOf(question);
  const word = (option: number) => options[option] || letterOf(option);
  if (Array.isArray(answer)) return answer.map(word).join(question.kind === 'order' ? ', then ' : ', ');
  return options.length ? word(answer as number) : String(answer);
}
