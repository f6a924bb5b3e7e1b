import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useCallback, useLayoutEffect, useRef, type KeyboardEvent } from 'react';
import type { RollBookInfo } from '@nimble-bell/core/api';
import { dateIn, dayWords, shortDayWords } from '@nimble-bell/core/calendar';
import { MARK_WORDS, shareOf, sumsOf, type BookCell, type BookRow } from '@nimble-bell/core/roll';
import { useThisCourse } from '../app/course';
import { useCells } from '../ui/useCells';
import type { Corrected } from './CorrectionDialog';
import { RollMark } from './RollMark';
import classes from './rollBook.module.css';

interface RollGridProps {
  book: RollBookInfo;
  rows: readonly BookRow[];
  correct: (of: Corrected) => void;
}

const ROW_PX = 34;
const PAGE = 12;

/** Students by sessions: rows are drawn as they come into sight, one cell is in the order of tabs, arrows lead on. */
export function RollGrid({ book, rows, correct }: RollGridProps) {
  const scroller = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler leaves this one component alone
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 10,
  });
  const cells = useCells({
    rows: rows.length,
    columns: book.sessions.length,
    page: () => PAGE,
    show: (row) => virtual.scrollToIndex(row),
    grid: scroller,
  });
  // The latest sessions are what one looks for.
  const { length } = book.sessions;
  useLayoutEffect(() => {
    if (scroller.current) scroller.current.scrollLeft = scroller.current.scrollWidth;
  }, [length]);
  const open = useCallback(
    (row: BookRow, column: number) => {
      const cell = row.cells[column];
      if (cell) correct({ member: row.member, name: row.name, session: book.sessions[column]!, cell });
    },
    [book.sessions, correct],
  );
  const onKeyDown = (e: KeyboardEvent) => {
    const moved = cells.move(e);
    const { row, column } = cells.active;
    if (!moved && e.key !== 'Enter') return;
    e.preventDefault();
    if (!moved && rows[row]) open(rows[row], column);
  };
  const grid = { gridTemplateColumns: `190px 92px repeat(${book.sessions.length}, 46px)` };
  return (
    <div
      ref={scroller}
      className={classes.scroller}
      role="grid"
      aria-label="Roll of the term"
      aria-rowcount={rows.length + 1}
      aria-colcount={book.sessions.length + 2}
      onKeyDown={onKeyDown}
      onFocus={cells.onFocus}
    >
      <Heads book={book} grid={grid} />
      <div className={classes.body} style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start }) => (
          <GridRow
            key={rows[index]!.member}
            row={rows[index]!}
            {...{ index, start, grid, open, book }}
            active={cells.active.row === index ? cells.active.column : null}
          />
        ))}
      </div>
    </div>
  );
}

function Heads({ book, grid }: { book: RollBookInfo; grid: object }) {
  const { zone } = useThisCourse().term;
  return (
    <div role="row" aria-rowindex={1} className={`${classes.row} ${classes.heads}`} style={grid}>
      <span role="columnheader" className={classes.name}>
        Student
      </span>
      <span role="columnheader" className={classes.share}>
        There
      </span>
      {book.sessions.map((s) => (
        <span
          key={s.id}
          role="columnheader"
          title={`${s.title} ${s.number}, ${dayWords(dateIn(zone, s.startsAt))}`}
        >
          {shortDayWords(dateIn(zone, s.startsAt))}
        </span>
      ))}
    </div>
  );
}

interface GridRowProps {
  row: BookRow;
  index: number;
  start: number;
  grid: object;
  book: RollBookInfo;
  /** The column that is in the order of tabs. */
  active: number | null;
  open: (row: BookRow, column: number) => void;
}

const GridRow = memo(function GridRow({ row, index, start, grid, book, active, open }: GridRowProps) {
  const sums = sumsOf(row.cells);
  const share = shareOf(sums);
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className={classes.row}
      style={{ ...grid, transform: `translateY(${start}px)` }}
      data-slipping={book.slipping[row.member] ? true : undefined}
    >
      <span role="rowheader" className={classes.name} title={book.slipping[row.member]}>
        {row.name}
        {row.group && <small> {row.group}</small>}
      </span>
      <span role="gridcell" className={classes.share}>
        {share === null ? '' : `${sums.there}/${sums.of}, ${Math.round(share * 100)} %`}
      </span>
      {row.cells.map((cell, column) => (
        <span role="gridcell" key={book.sessions[column]!.id}>
          <button
            type="button"
            className={classes.cell}
            data-cell={`${index}:${column}`}
            tabIndex={active === column ? 0 : -1}
            data-mark={cell?.mark}
            data-corrected={cell?.corrected}
            aria-label={wordsOf(cell, row, book.sessions[column]!)}
            onClick={() => open(row, column)}
          >
            {cell && <RollMark mark={cell.mark} />}
          </button>
        </span>
      ))}
    </div>
  );
});

const wordsOf = (
  cell: BookCell | null,
  row: BookRow,
  { title, number }: RollBookInfo['sessions'][number],
): string => {
  const where = `${row.name}, ${title} ${number}`;
  if (!cell) return `${where}: not theirs`;
  const more = [
    cell.minutes ? `${cell.minutes} minutes` : '',
    cell.telephone ? 'by telephone' : '',
    cell.corrected ? 'corrected' : '',
  ].filter(Boolean);
  return `${where}: ${[MARK_WORDS[cell.mark], ...more].join(', ')}`;
};
