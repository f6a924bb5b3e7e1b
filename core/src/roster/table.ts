import Papa from 'papaparse';

export type Columns<K extends string> = Partial<Record<K, number>>;

export interface Table<K extends string> {
  /** Where each known column stands. */
  columns: Columns<K>;
  /** The lines below the heading that hold something; `line` counts from 1, the file's first line. */
  rows: { line: number; cells: string[] }[];
}

const DELIMITERS = [',', ';', '\t', '|', '^', '~'];

/** A delimited text with a heading line, its columns found by their names. Null where there is nothing in it. */
export function readTable<K extends string>(text: string, headings: Record<K, RegExp>): Table<K> | null {
  const all = readCells(text, (cells) => Object.keys(columnsOf(cells, headings)).length);
  const headingAt = all.findIndex((r) => r.some((cell) => cell.trim()));
  if (headingAt < 0) return null;
  const rows = all
    .map((cells, i) => ({ line: i + 1, cells }))
    .filter(({ cells }, i) => i > headingAt && cells.some((c) => c.trim()));
  return { columns: columnsOf(all[headingAt]!, headings), rows };
}

/**
 * The cells of a delimited text. The delimiter is the one by which the first line names the most columns, or, where it
 * names none, gives the most; the file itself may hold any of them.
 */
export function readCells(text: string, named: (cells: string[]) => number): string[][] {
  const bare = text.replace(/^\uFEFF/, '');
  // Some spreadsheets say their delimiter in a line of its own. It stays a line, so that the others keep their numbers.
  const said = /^sep=(.)[ \t]*(?=\r?\n|\r|$)/i.exec(bare);
  if (said) return parse(bare.slice(said[0].length), said[1]!);
  const first = bare.split(/\r\n|\r|\n/).find((line) => line.trim()) ?? '';
  const score = (delimiter: string) => {
    const cells = Papa.parse<string[]>(first, { delimiter }).data[0] ?? [];
    return named(cells) * 1000 + cells.length;
  };
  const delimiter = DELIMITERS.reduce((best, d) => (score(d) > score(best) ? d : best));
  return parse(bare, delimiter);
}

const parse = (text: string, delimiter: string): string[][] =>
  Papa.parse<string[]>(text, { delimiter, skipEmptyLines: false }).data.map((cells) => cells.map(seen));

/** A cell without what cannot be seen in it: zero widths, marks of direction, soft hyphens. */
const seen = (cell: string) =>
  cell.replace(/[\u00ad\u200b\u200e\u200f\u202a-\u202e\u2060-\u2064\u2066-\u2069\ufeff]/g, '');

function columnsOf<K extends string>(heading: string[], headings: Record<K, RegExp>): Columns<K> {
  const columns: Columns<K> = {};
  for (const [i, cell] of heading.entries())
    for (const column of Object.keys(headings) as K[])
      if (columns[column] === undefined && headings[column].test(cell.trim())) columns[column] = i;
  return columns;
}

/** Whether a spreadsheet would take a cell for a formula. */
const isFormula = (text: string) => /^'*[=+\-@\t\r\n]/.test(text);

/** A cell that a spreadsheet would take for a formula gets an apostrophe before it; read again, it is without. */
export const guarded = (text: string) => (isFormula(text) ? `'${text}` : text);
export const unguarded = (text: string) =>
  text[0] === "'" && isFormula(text.slice(1)) ? text.slice(1) : text;

/** Cells as CSV (RFC 4180). What any program could take for a delimiter is in quotes. */
export function writeCells(rows: readonly (readonly string[])[]): string {
  const cell = (text: string) =>
    /[",;\t|^~\r\n]|^\s|\s$/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
  return rows.map((row) => row.map(cell).join(',') + '\r\n').join('');
}

/** Rows as CSV, safe to open in a spreadsheet. */
export function writeCsv(
  heading: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
): string {
  const text = (value: string | number | null) =>
    value === null ? '' : typeof value === 'number' ? String(value) : guarded(value);
  return writeCells([heading, ...rows].map((row) => row.map(text)));
}
