import { isZone } from '../calendar/zone';
import { readTable } from './table';
export * from './table';

export interface RosterRow {
  /** Line of the file, the heading being 1. */
  line: number;
  name: string;
  email: string;
  zone: string;
  group: string | null;
}

export interface BadRow {
  line: number;
  text: string;
  reason: string;
}

export interface RosterPreview {
  fresh: RosterRow[];
  /** On the class list already, found by address. */
  known: RosterRow[];
  bad: BadRow[];
  /** What keeps the whole text from being read. */
  fault: string | null;
}

type Column = 'name' | 'email' | 'zone' | 'group' | 'first' | 'last';

const HEADINGS: Record<Column, RegExp> = {
  name: /^((full|student|display)?\s*name|student)$/i,
  first: /^(first|given)\s*name$/i,
  last: /^(last|family|sur)\s*name$|^surname$/i,
  email: /^e-?mail(\s*address)?$|^address$/i,
  zone: /^(time\s*)?zone$|^tz$/i,
  group: /^(group|section|lab)$/i,
};

/** One address, no display name: enough of RFC 5321's mailbox to catch what people mistype. */
const ADDRESS =
  /^[^\s@<>,;:"()[\]]+@[A-Za-z0-9](?:[A-Za-z0-9-]*[A-Za-z0-9])?(?:\.[A-Za-z0-9](?:[A-Za-z0-9-]*[A-Za-z0-9])?)+$/;

export const isAddress = (text: string): boolean => text.length <= 254 && ADDRESS.test(text);

/**
 * Reads a class list from CSV text, delimiter and column order found out. A row is never dropped in silence: it is
 * new, known, or bad with its reason. `homeZone` stands where a row names no zone.
 */
export function readRoster(
  text: string,
  knownAddresses: ReadonlySet<string>,
  homeZone: string,
): RosterPreview {
  const preview: RosterPreview = { fresh: [], known: [], bad: [], fault: null };
  const table = readTable(text, HEADINGS);
  if (!table)
    return { ...preview, fault: 'There is nothing to read. Give a heading line and a line for each person.' };
  const { columns } = table;
  if (columns.email === undefined)
    return { ...preview, fault: 'No column of addresses was found. Head it "E-mail".' };
  if (columns.name === undefined && columns.first === undefined && columns.last === undefined)
    return { ...preview, fault: 'No column of names was found. Head it "Name".' };

  const seen = new Map<string, number>();
  for (const { line, cells } of table.rows) {
    const row = rowOf(cells, columns, line, homeZone);
    const reason = faultOf(row, seen);
    if (reason) preview.bad.push({ line: row.line, text: cells.join(', '), reason });
    else {
      seen.set(row.email, row.line);
      (knownAddresses.has(row.email) ? preview.known : preview.fresh).push(row);
    }
  }
  return preview;
}

function rowOf(
  cells: string[],
  columns: Partial<Record<Column, number>>,
  line: number,
  homeZone: string,
): RosterRow {
  const cell = (column: Column) =>
    columns[column] === undefined ? '' : (cells[columns[column]] ?? '').trim();
  const name = cell('name') || [cell('first'), cell('last')].filter(Boolean).join(' ');
  return {
    line,
    name: name.replace(/\s+/g, ' '),
    email: cell('email').toLowerCase(),
    zone: cell('zone') || homeZone,
    group: cell('group') || null,
  };
}

function faultOf(row: RosterRow, seen: ReadonlyMap<string, number>): string | null {
  if (!row.name) return 'The name is missing.';
  if (row.name.length > 120) return 'The name is longer than 120 characters.';
  if (!row.email) return 'The e-mail address is missing.';
  if (!isAddress(row.email)) return `"${row.email}" is not an e-mail address.`;
  const before = seen.get(row.email);
  if (before !== undefined) return `The same address is on line ${before} already.`;
  if (!isZone(row.zone))
    return `The time zone "${row.zone}" is not known. Use a name such as America/Halifax.`;
  if (row.group && row.group.length > 40) return 'The group is longer than 40 characters.';
  return null;
}
export * from './groups';
