import { isZone } from '../calendar/zone';
import { isAddress } from './address';
import { fieldOf, type Field } from './headings';
import { ownFields } from './ownList';
import { readCells, unguarded } from './table';
import { tidyLine } from '../text';
import { faultOfName } from './names';

/** A person as a class list names them. What the list does not say is null. */
export interface ListRow {
  /** Row of the file, the first being 1. */
  line: number;
  name: string;
  email: string;
  zone: string | null;
  group: string | null;
  /** The school's own columns, by heading. */
  extra: Record<string, string>;
}

export interface BadRow {
  line: number;
  cells: string[];
  reason: string;
}

export interface ReadList {
  headings: string[];
  /** What each column is taken for: one a heading. */
  fields: Field[];
  rows: ListRow[];
  bad: BadRow[];
  /** What keeps the whole text from being read. */
  fault: string | null;
}

const NAMES: readonly Field[] = ['name', 'lastFirst', 'first', 'last'];
const MOST_EXTRA = 12;
const LONGEST_EXTRA = 200;
export const MOST_ROWS = 20_000;

/**
 * Reads a class list from delimited text: delimiter, columns and their order are found out, by their headings or, where
 * those say nothing, by what stands below them. `chosen` overrules what columns are taken for; `mended` puts other
 * cells in place of a row's. A row is never dropped in silence: it is read, or bad with its reason.
 */
export function readClassList(
  text: string,
  chosen?: readonly Field[],
  mended: ReadonlyMap<number, readonly string[]> = new Map(),
): ReadList {
  const all = readCells(text, (cells) => cells.filter(fieldOf).length)
    .map((cells, i) => ({ line: i + 1, cells: (mended.get(i + 1) ?? cells).map((c) => c.trim()) }))
    .filter(({ cells }) => cells.some(Boolean));
  const nothing = { headings: [], fields: [], rows: [], bad: [] };
  if (!all.length) return { ...nothing, fault: 'There is nothing to read. Give a line for each person.' };
  if (all.length > MOST_ROWS) return { ...nothing, fault: `A class list has at most ${MOST_ROWS} rows.` };
  const headed = isHeading(all[0]!.cells);
  const body = headed ? all.slice(1) : all;
  const width = Math.max(...all.slice(0, 200).map((r) => r.cells.length));
  const headings = Array.from(
    { length: width },
    (_, i) => (headed && all[0]!.cells[i]) || `Column ${String(i + 1)}`,
  );
  const own = headed ? ownFields(headings) : null;
  if (own) {
    for (const row of body) row.cells = row.cells.map(unguarded);
    headings.splice(0, width, ...headings.map(unguarded));
  }
  const fields =
    own && !chosen
      ? own
      : fieldsOf(
          headings,
          body.map((r) => r.cells),
          chosen,
        );
  const read: ReadList = { headings, fields, rows: [], bad: [], fault: null };
  if (!fields.includes('email'))
    return { ...read, fault: 'No column of addresses was found. Say which one it is, or head it "E-mail".' };
  if (!fields.some((f) => NAMES.includes(f)))
    return { ...read, fault: 'No column of names was found. Say which one it is, or head it "Name".' };
  const seen = new Map<string, number>();
  for (const { line, cells } of body) {
    const row = rowOf(cells, fields, headings, line);
    const reason = faultOf(row) ?? repeated(row, seen);
    if (reason)
      read.bad.push({ line, cells: Array.from({ length: width }, (_, i) => cells[i] ?? ''), reason });
    else {
      seen.set(row.email, line);
      read.rows.push(row);
    }
  }
  return read;
}

/** Whether a line is headings: nothing in it is an address, or it says where names and addresses are. */
const isHeading = (cells: readonly string[]): boolean => {
  const named = new Set(cells.map(fieldOf));
  return !cells.some(isAddress) || (named.has('name') && named.has('email'));
};

/** By choice, by heading, by content; what is left is kept as the school's own. Each of ours is one column. */
function fieldsOf(
  headings: readonly string[],
  body: readonly string[][],
  chosen?: readonly Field[],
): Field[] {
  if (chosen?.length === headings.length) return [...chosen];
  const fields: (Field | null)[] = headings.map(fieldOf);
  for (const [i, field] of fields.entries()) if (field && fields.indexOf(field) < i) fields[i] = null;
  // In some languages the word for a first name alone is that for a whole one.
  if (!fields.includes('name')) for (const part of ['first', 'last'] as const) loneName(fields, part);
  const sample = body.slice(0, 60);
  const guess = (field: Field, fits: (cell: string) => boolean) => {
    if (fields.includes(field)) return;
    const at = headings.findIndex((_, i) => {
      const filled = sample.map((cells) => cells[i] ?? '').filter(Boolean);
      return fields[i] === null && filled.length > 0 && filled.filter(fits).length > filled.length / 2;
    });
    if (at >= 0) fields[at] = field;
  };
  guess('email', isAddress);
  guess('zone', (cell) => cell.includes('/') && isZone(cell));
  if (!fields.includes('first') && !fields.includes('last'))
    guess('name', (cell) => /^[\p{L}][\p{L}\p{M}'’.,\- ]*$/u.test(cell) && cell.includes(' '));
  familyFirst(fields, sample);
  let kept = 0;
  return fields.map((field) => field ?? (kept++ < MOST_EXTRA ? 'keep' : 'skip'));
}

/** A name that most lines write with a comma is the family name first. */
function familyFirst(fields: (Field | null)[], sample: readonly string[][]) {
  const at = fields.indexOf('name');
  const filled = sample.map((cells) => cells[at] ?? '').filter(Boolean);
  const turned = filled.filter((cell) => /^[^,]*[\p{L}][^,]*,[^,]*[\p{L}][^,]*$/u.test(cell));
  if (at >= 0 && turned.length > filled.length / 2) fields[at] = 'lastFirst';
}

const straight = (name: string): string => {
  const [last, first] = name.split(/,(.*)/s);
  return first ? `${first.trim()} ${last!.trim()}` : name;
};

function loneName(fields: (Field | null)[], part: 'first' | 'last') {
  const other = part === 'first' ? 'last' : 'first';
  if (fields.includes(part) && !fields.includes(other)) fields[fields.indexOf(part)] = 'name';
}

function rowOf(
  cells: readonly string[],
  fields: readonly Field[],
  headings: readonly string[],
  line: number,
): ListRow {
  const cell = (field: Field) => cells[fields.indexOf(field)] ?? '';
  const parts = [cell('first'), cell('last')].filter(Boolean).join(' ');
  const name = cell('name') || straight(cell('lastFirst')) || parts;
  const extra: Record<string, string> = {};
  for (const [i, field] of fields.entries())
    if (field === 'keep' && cells[i]) extra[headings[i]!.slice(0, 60)] = cells[i].slice(0, LONGEST_EXTRA);
  return {
    line,
    name: tidyLine(name),
    email: cell('email').toLowerCase(),
    zone: cell('zone') || null,
    group: cell('group') || null,
    extra,
  };
}

/** What keeps a person from the list, in a sentence; null where nothing does. */
export function faultOf(row: Omit<ListRow, 'line'>): string | null {
  const name = faultOfName(row.name);
  if (name) return name;
  if (!row.email) return 'The e-mail address is missing.';
  if (!isAddress(row.email)) return `"${row.email}" is not an e-mail address.`;
  if (row.zone !== null && !isZone(row.zone))
    return `The time zone "${row.zone}" is not known. Use a name such as America/Halifax.`;
  if (row.group && row.group.length > 40) return 'The group is longer than 40 characters.';
  return null;
}

function repeated(row: ListRow, seen: ReadonlyMap<string, number>): string | null {
  const before = seen.get(row.email);
  return before === undefined ? null : `The same address is on line ${before} already.`;
}
