import type { Role } from './role';
import type { ListRow } from './classList';
import { folded, ownValue } from './headings';

/** A person who is on the class list. */
export interface KnownMember {
  id: string;
  name: string;
  email: string;
  zone: string;
  group: string | null;
  extra: Record<string, string>;
  role: Role;
  /** They said themselves where they are: a list does not overrule it. */
  zoneOwn?: boolean;
}

export interface FieldChange {
  /** `name`, `email`, `zone`, `group`, or the heading of a column of the school's own. */
  field: string;
  was: string;
  becomes: string;
}

export interface ChangedMember {
  member: KnownMember;
  row: ListRow;
  fields: FieldChange[];
}

/** What a class list, read anew, would do to the one there is. */
export interface Comparison {
  fresh: ListRow[];
  changed: ChangedMember[];
  /** On the list, and not in the file. They stay unless they are chosen to go. */
  gone: KnownMember[];
  same: number;
  /** A new address with the name of somebody on the list: the same person, or another? Out until it is said. */
  alike: { row: ListRow; member: KnownMember }[];
  /** Two rows of the file that may be one person. The later one is out until it is said. */
  twins: { row: ListRow; first: ListRow }[];
  /** In the file, and here to teach: their row changes nothing. */
  teaching: ListRow[];
}

/**
 * How rows like somebody on the list, or like another row, were settled, by line: the same person with another address,
 * somebody else, or a person who stands in the file twice, whose row is left out.
 */
export type Settlement = 'same' | 'other' | 'twice';
export type Settled = ReadonlyMap<number, Settlement>;

/** A list's rows beside the members there are: by address, then by name. An empty cell says nothing. */
export function compareLists(
  rows: readonly ListRow[],
  members: readonly KnownMember[],
  settled: Settled = new Map(),
): Comparison {
  const result: Comparison = {
    ...{ fresh: [], changed: [], gone: [], same: 0, alike: [], twins: [], teaching: [] },
  };
  const byAddress = new Map(members.map((m) => [m.email, m]));
  const students = members.filter((m) => m.role === 'student');
  const named = new Set(rows.map((r) => r.email));
  const absent = students.filter((m) => !named.has(m.email));
  const byName = new Map(absent.map((m) => [nameKey(m.name), m]));
  const met = new Set<string>();
  const change = (member: KnownMember, row: ListRow) => {
    met.add(member.id);
    const fields = fieldsChanged(member, row);
    if (fields.length) result.changed.push({ member, row, fields });
    else result.same++;
  };
  const newcomers = new Map<string, ListRow[]>();
  const add = (row: ListRow) => {
    const likes = newcomers.get(nameKey(row.name)) ?? [];
    newcomers.set(nameKey(row.name), [...likes, row]);
    const first = settled.get(row.line) === 'other' ? undefined : likes.find((l) => isTwin(l, row));
    if (first) result.twins.push({ row, first });
    else result.fresh.push(row);
  };
  for (const row of rows) {
    if (settled.get(row.line) === 'twice') continue;
    const known = byAddress.get(row.email);
    if (known && known.role !== 'student') result.teaching.push(row);
    else if (known) change(known, row);
    else {
      const like = byName.get(nameKey(row.name));
      if (!like || met.has(like.id)) add(row);
      else if (settled.get(row.line) === 'same') change(like, row);
      else if (settled.get(row.line) === 'other') add(row);
      else {
        met.add(like.id);
        result.alike.push({ row, member: like });
      }
    }
  }
  result.gone = absent.filter((m) => !met.has(m.id));
  return result;
}

/** Names are alike whatever their accents, capitals and order: "LANYON, Ana" is "Ana Lanyon". */
const nameKey = (name: string): string => folded(name).split(' ').sort().join(' ');

const numbersOf = ({ extra }: ListRow) => Object.entries(extra).filter(([, value]) => /\d/.test(value));

/** Two rows of one name are one person's, unless each has a number and no two of them agree. */
function isTwin(a: ListRow, b: ListRow): boolean {
  const numbers = numbersOf(a);
  const others = new Map(numbersOf(b));
  return !numbers.length || !others.size || numbers.some(([heading, value]) => others.get(heading) === value);
}

function fieldsChanged(member: KnownMember, row: ListRow): FieldChange[] {
  const pairs: [string, string, string | null][] = [
    ['name', member.name, row.name],
    ['email', member.email, row.email],
    ['zone', member.zone, member.zoneOwn ? null : row.zone],
    ['group', member.group ?? '', row.group],
    ...Object.entries(row.extra).map(([heading, value]): [string, string, string] => [
      heading,
      ownValue(member.extra, heading) ?? '',
      value,
    ]),
  ];
  return pairs
    .filter(([, was, becomes]) => becomes !== null && becomes !== was)
    .map(([field, was, becomes]) => ({ field, was, becomes: becomes! }));
}
