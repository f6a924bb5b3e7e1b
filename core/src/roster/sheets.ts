import readSheets from 'read-excel-file/universal';
import type { ListFile } from './readFiles';
import { writeCells } from './table';

declare const TextEncoder: new () => { encode(text: string): Uint8Array };

const isZip = ({ bytes }: ListFile) => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** Workbooks (XLSX) among some files in place of which their first sheet with anything in it stands, as delimited text. */
export const withoutWorkbooks = (files: readonly ListFile[]): Promise<ListFile[]> =>
  Promise.all(files.map(async (file) => (isZip(file) ? ((await sheetOf(file)) ?? file) : file)));

/** Null where it is no workbook: another archive, or a torn one. */
async function sheetOf({ name, bytes }: ListFile): Promise<ListFile | null> {
  // A view of a larger buffer is none of its own.
  const own = bytes.slice().buffer as ArrayBuffer;
  const sheets = await readSheets(own).catch(() => null);
  const filled = sheets?.find(({ data }) => data.some((row) => row.some((cell) => cell !== null)));
  if (!filled) return null;
  const rows = filled.data.map((row) => row.map(cellText));
  return { name, bytes: new TextEncoder().encode(writeCells(rows)) };
}

/** A date alone is a date; what is computed is its result. */
function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  return cell instanceof Date ? cell.toISOString().replace(/T00:00:00\.000Z$/, '') : String(cell);
}
