import { unzipSync } from 'fflate';
import { faultOf, readClassList, type ReadList } from './classList';
import { compareLists, type Comparison, type KnownMember, type Settled } from './compare';
import { decodeText } from '../text';
import type { Field } from './headings';
import {
  oneRosterOf,
  rosterClasses,
  rosterRows,
  type LeftOut,
  type OneRosterSet,
  type RosterClass,
} from './oneRoster';

export interface ListFile {
  name: string;
  bytes: Uint8Array;
}

export interface ListQuestion {
  /** What was pasted; files count where there is none. */
  text: string | null;
  files: readonly ListFile[];
  fields?: readonly Field[];
  mended?: ReadonlyMap<number, readonly string[]>;
  settled?: Settled;
  rosterClass?: string | null;
  members: readonly KnownMember[];
  /** The local date that the list is for: today, or the term's first day. */
  today: string;
}

export interface ListAnswer {
  list: ReadList;
  comparison: Comparison;
  /** The classes of a OneRoster set; null where the files are none. */
  classes: RosterClass[] | null;
  /** Whom such a set names and leaves out. */
  leftOut: LeftOut[];
  encoding: string | null;
}

const LARGEST_FILE = 50_000_000;

/** Reads a class list from a paste, a file in any encoding, or the files or archive of a OneRoster set, and compares it. */
export function readAndCompare(question: ListQuestion): ListAnswer {
  const { members, settled, fields, mended, today } = question;
  const answer = (list: ReadList, more: Partial<ListAnswer> = {}): ListAnswer => ({
    list,
    comparison: compareLists(list.rows, members, settled),
    classes: null,
    leftOut: [],
    encoding: null,
    ...more,
  });
  if (question.text !== null) return answer(readClassList(question.text, fields, mended));
  const decoded = question.files.flatMap(unpacked).map((f) => decodeText(f.bytes));
  const set = oneRosterOf(decoded.map((d) => d.text));
  if (set && 'missing' in set && question.files.length + decoded.length > 2)
    return answer(fault(`The OneRoster set is missing its ${set.missing.join(' and ')} file.`));
  if (set && !('missing' in set)) return ofSet(set, question, answer, today);
  const encoding = decoded[0]?.encoding ?? null;
  return answer(readClassList(decoded[0]?.text ?? '', fields, mended), { encoding });
}

const fault = (text: string): ReadList => ({ headings: [], fields: [], rows: [], bad: [], fault: text });

function ofSet(
  set: OneRosterSet,
  question: ListQuestion,
  answer: (list: ReadList, more?: Partial<ListAnswer>) => ListAnswer,
  today: string,
): ListAnswer {
  const classes = rosterClasses(set, today);
  const chosen = question.rosterClass ?? (classes.length === 1 ? classes[0]!.id : null);
  const { rows: all, leftOut } = chosen ? rosterRows(set, chosen, today) : { rows: [], leftOut: [] };
  const list: ReadList = {
    headings: ['Name', 'E-mail'],
    fields: ['name', 'email'],
    rows: all.filter((r) => !faultOf(r)),
    bad: all.flatMap((r) => {
      const reason = faultOf(r);
      return reason ? [{ line: r.line, cells: [r.name, r.email], reason }] : [];
    }),
    fault: classes.length ? null : 'The set holds no class.',
  };
  return answer(list, { classes, leftOut });
}

/** The text files of an archive, or the file itself. An archive that cannot be opened is read as what it is: no list. */
function unpacked(file: ListFile): ListFile[] {
  const isZip = file.bytes[0] === 0x50 && file.bytes[1] === 0x4b;
  if (!isZip) return [file];
  try {
    const files = unzipSync(file.bytes, {
      filter: (f) => /\.(csv|txt)$/i.test(f.name) && f.originalSize < LARGEST_FILE,
    });
    return Object.entries(files).map(([name, bytes]) => ({ name, bytes }));
  } catch {
    return [{ name: file.name, bytes: new Uint8Array() }];
  }
}
