import { countWords, listWords } from '@nimble-bell/core/calendar';
import { placeOfText } from '@nimble-bell/core/board';
import type { Mark, OnBoard, PutText } from '@nimble-bell/core/room';

const isText = (m: Mark): m is PutText => m.kind === 'text';

/** The board in one line. */
export function boardWords({ marks }: OnBoard): string {
  const of = (kind: Mark['kind']) => marks.filter((m) => m.kind === kind).length;
  const [shapes, texts, pictures] = [of('shape'), of('text'), of('picture')];
  return `Board with ${listWords([
    countWords(of('stroke'), 'stroke'),
    ...(shapes ? [countWords(shapes, 'shape')] : []),
    ...(texts ? [countWords(texts, 'text')] : []),
    ...(pictures ? [countWords(pictures, 'picture')] : []),
  ])}`;
}

const each = <T>(list: readonly T[], of: (one: T) => string) => listWords([...new Set(list.map(of))]);

/** What is on the board, a line each, for who does not see it. */
export function boardLines({ marks }: OnBoard, nameOf: (member: string) => string): string[] {
  // Of a board that is shown without a name nobody is told whose it is.
  const by = (some: readonly Mark[]) =>
    some.every((m) => m.by) ? `, by ${each(some, (m) => nameOf(m.by))}` : '';
  const drawn = marks.filter((m) => m.kind === 'stroke');
  const shapes = marks.filter((m) => m.kind === 'shape');
  return [
    ...marks.filter(isText).map((t) => `${placeOfText(t)}${by([t])}: ${t.text}`),
    ...marks.flatMap((m) => (m.kind === 'picture' ? [`Picture${by([m])}: ${m.words}`] : [])),
    ...(shapes.length ? [`${each(shapes, (s) => `${s.shape} in ${s.colour}`)}${by(shapes)}`] : []),
    ...(drawn.length
      ? [`${countWords(drawn.length, 'stroke')} in ${each(drawn, (s) => s.colour)}${by(drawn)}`]
      : []),
  ];
}
