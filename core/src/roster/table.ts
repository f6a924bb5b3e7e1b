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
  const first = bare.split(/\r\n|\r|\n/).find((line) => line.trim()) ?? '';
  const score = (delimiter: string) => {
    const cells = Papa.parse<string[]>(first, { delimiter }).data[0] ?? [];
    return named(cells) * 1000 + cells.length;
  };
  const delimiter = DELIMITERS.reduce((best, d) => (score(d) > score(best) ? d : best));
  return Papa.parse<string[]>(bare, { delimiter, skipEmptyLines: false }).data;
}

function columnsOf<K extends string>(heading: string[], headings: Record<K, RegExp>): Columns<K> {
  const columns: Columns<K> = {};
  for (const [i, cell] of heading.entries())
    for (const column of Object.keys(headings) as K[])
      if (columns[column] === undefined && headings[column].test(cell.trim())) columns[column] = i;
  return columns;
}

/** Rows as CSV (RFC 4180). A cell that a spreadsheet would take for a formula gets an apostrophe before it. */
export function writeCsv(
  heading: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
): string {
  const cell = (value: string | number | null) => {
    let text = value === null ? '' : String(value);
    if (typeof value === 'string' && /^[=+\-@\t\r\n]/.test(text)) text = `'${text}`;
    return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
  };
  return [heading, ...rows].map((row) => row.map(cell).join(',') + '\r\n').join('');
}
