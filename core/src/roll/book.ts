import { wasThere, type Mark } from './marks';

/** One student in one session. */
export interface BookCell {
  mark: Mark;
  /** Whole minutes in the room while the class was on. */
  minutes: number;
  /** A teacher's word, and not the rules'. */
  corrected?: true;
  telephone?: true;
}

export interface BookRow {
  member: string;
  name: string;
  group: string | null;
  /** In the order of the sessions; null where the session was not theirs. */
  cells: (BookCell | null)[];
}

export interface BookSession {
  id: string;
  title: string;
  number: number;
  /** Instant. */
  startsAt: number;
  /** As it was held. */
  minutes: number;
}

/** The roll of a whole term: students by sessions that were held, the earliest first. */
export interface RollBook {
  sessions: BookSession[];
  rows: BookRow[];
}

export interface BookSums {
  there: number;
  /** Of so many that count: excused ones do not. */
  of: number;
  late: number;
  excused: number;
  minutes: number;
}

export function sumsOf(cells: readonly (BookCell | null)[]): BookSums {
  const sums: BookSums = { there: 0, of: 0, late: 0, excused: 0, minutes: 0 };
  for (const cell of cells) {
    if (!cell) continue;
    sums.minutes += cell.minutes;
    if (cell.mark === 'excused') sums.excused++;
    else sums.of++;
    if (wasThere(cell.mark)) sums.there++;
    if (cell.mark === 'late') sums.late++;
  }
  return sums;
}

export const shareOf = ({ there, of }: Pick<BookSums, 'there' | 'of'>): number | null =>
  of ? there / of : null;

const RECENT = 3;
const MISSED = 2;
const LAST = 2;
const FALLEN = 0.6;
const mean = (all: readonly number[]) => all.reduce((sum, n) => sum + n, 0) / all.length;
const percent = (share: number) => `${Math.round(share * 100)} %`;

/** What is known of somebody and a session beside the roll. */
export interface AfterSigns {
  tookPart: boolean;
  /** There is a recording of it; they watched of it. */
  recorded: boolean;
  watched: boolean;
}

/**
 * Who is slipping, and by what: missed two of the last three; missed one and did not watch it, and was silent in the
 * others; or there for far less of the last two than before. Excused absences count for nothing. Null where nothing is to
 * be said. `signs`: by session, where they are counted.
 */
export function slippingWords(
  cells: readonly (BookCell | null)[],
  sessions: readonly Pick<BookSession, 'minutes'>[],
  signs: readonly (AfterSigns | null)[] = [],
): string | null {
  const counted = cells.flatMap((cell, i) =>
    cell && cell.mark !== 'excused' ? [{ ...cell, of: sessions[i]!.minutes, signs: signs[i] ?? null }] : [],
  );
  const recent = counted.slice(-RECENT);
  const missed = recent.filter((c) => c.mark === 'absent').length;
  if (recent.length === RECENT && missed >= MISSED)
    return missed === RECENT ? 'Missed the last three' : 'Missed two of the last three';
  const unseen = (c: (typeof recent)[number]) => c.signs?.recorded && !c.signs.watched;
  const silent = (c: (typeof recent)[number]) => c.signs && !c.signs.tookPart;
  if (
    recent.length === RECENT &&
    missed === 1 &&
    recent.every((c) => (c.mark === 'absent' ? unseen(c) : silent(c)))
  )
    return 'Missed one of the last three and did not watch it, and was silent in the others';
  const shares = counted
    .filter((c) => wasThere(c.mark) && c.of > 0)
    .map((c) => Math.min(1, c.minutes / c.of));
  if (shares.length < LAST + 2) return null;
  const before = mean(shares.slice(0, -LAST));
  const last = mean(shares.slice(-LAST));
  return last < before * FALLEN
    ? `There for ${percent(last)} of the last two classes, ${percent(before)} before`
    : null;
}
