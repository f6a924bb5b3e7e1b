import type { Block, Piece } from './letter';

/** What a template may name; filled in for each person. */
export const FIELDS = {
  name: 'what they are called',
  course: 'the course, code and title',
  teacher: 'who teaches it',
  series: 'their sessions, a line a series',
  next: 'when their next session begins, in their own time',
  session: 'that session, with its time',
  link: 'their own way in',
  zone: 'their time zone',
  until: 'the last day of the term',
  telephone: 'the number to call, where the course has a line',
  pin: 'their own PIN on that line',
  recording: 'whether sessions are recorded, for whom and until when',
  limits: 'what they may do in class',
} as const;
export type FieldName = keyof typeof FIELDS;
export type FieldValues = Record<Exclude<FieldName, 'series'>, string> & { series: string[] };

export const DEFAULT_INVITATION = {
  subject: '{course}: your way in',
  text: `Dear {name},

{teacher} invites you to {course}.

{series}

{next}

{link}

By telephone: {telephone}, then your PIN {pin}.

{recording}

{limits}

The link is yours alone and stays the same until {until}. Your sessions come as calendar entries: accept them, and your calendar stays right.`,
};

const FIELD = /\{([a-z]+)\}/gi;

/** The names in braces that are no fields. */
export const unknownFields = (text: string): string[] => [
  ...new Set([...text.matchAll(FIELD)].map((m) => m[1]!).filter((name) => !(name in FIELDS))),
];

/** One line, every field filled in. */
export const filledLine = (text: string, values: FieldValues): string =>
  text
    .replace(FIELD, (whole, name: string) => valueOf(name, values) ?? whole)
    .replace(/\s+/g, ' ')
    .trim();

const valueOf = (name: string, values: FieldValues): string | null => {
  if (!(name in FIELDS)) return null;
  const value = values[name as FieldName];
  return typeof value === 'string' ? value : value.join('; ');
};

/**
 * A template as a letter's blocks: a paragraph that is `{series}` alone becomes a list, one that is `{link}` alone the
 * button, and `[a phrase]({link})` a linked phrase. A paragraph whose fields are all empty is left out.
 */
export function filled(text: string, values: FieldValues): Block[] {
  return text
    .replaceAll('\r\n', '\n')
    .split(/\n{2,}/)
    .map((p) => p.trim())
    .filter(Boolean)
    .flatMap((p): Block[] => {
      if (p === '{series}') return values.series.length ? [{ kind: 'list', items: values.series }] : [];
      if (p === '{link}') return [{ kind: 'button', label: 'Go to your class page', url: values.link }];
      const fields = [...p.matchAll(FIELD)].filter((m) => m[1]! in FIELDS);
      if (fields.length && fields.every((m) => valueOf(m[1]!, values) === '')) return [];
      return [{ kind: 'text', pieces: piecesOf(p, values) }];
    });
}

function piecesOf(text: string, values: FieldValues): Piece[] {
  const parts = text.split(/(\[[^\]\n]+\]\([^)\s]+\))/);
  return parts.flatMap((part): Piece[] => {
    const phrase = /^\[([^\]\n]+)\]\(([^)\s]+)\)$/.exec(part);
    const fill = (t: string) => t.replace(FIELD, (whole, name: string) => valueOf(name, values) ?? whole);
    if (phrase) return [{ text: fill(phrase[1]!), url: fill(phrase[2]!) }];
    return part ? [{ text: fill(part) }] : [];
  });
}
