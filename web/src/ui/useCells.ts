import { useEffect, useRef, useState, type FocusEvent, type KeyboardEvent, type RefObject } from 'react';

/** A cell: its row, the headings being -1, and its column. */
export interface Cell {
  row: number;
  column: number;
}

interface Wanted {
  rows: number;
  columns: number;
  /** Rows on a page. */
  page: () => number;
  /** Brings a row into sight, and has it drawn. */
  show: (row: number) => void;
  grid: RefObject<HTMLElement | null>;
}

/** Where a key leads in a grid (ARIA Authoring Practices, grid); null where it is none of those. */
export function stepOf(
  e: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey'>,
  at: Cell,
  page: number,
): Cell | null {
  const far = e.ctrlKey || e.metaKey;
  switch (e.key) {
    case 'ArrowDown':
      return { ...at, row: at.row + 1 };
    case 'ArrowUp':
      return { ...at, row: at.row - 1 };
    case 'ArrowRight':
      return { ...at, column: at.column + 1 };
    case 'ArrowLeft':
      return { ...at, column: at.column - 1 };
    case 'PageDown':
      return { ...at, row: at.row + page };
    case 'PageUp':
      return { ...at, row: Math.max(0, at.row - page) };
    case 'Home':
      return { row: far ? 0 : at.row, column: 0 };
    case 'End':
      return { row: far ? Infinity : at.row, column: Infinity };
    default:
      return null;
  }
}

/**
 * One cell of a grid is in the order of tabs; arrows move it, and focus with it, so that each cell is read as one comes to
 * it. A cell says `data-cell="row:column"`; what it holds to be worked, a box or a button, carries it in its place.
 */
export function useCells({ rows, columns, page, show, grid }: Wanted) {
  const [active, setActive] = useState<Cell>({ row: 0, column: 0 });
  const asked = useRef(false);
  const last: Cell = { row: Math.min(active.row, rows - 1), column: Math.min(active.column, columns - 1) };
  useEffect(() => {
    if (!asked.current) return;
    const cell = grid.current?.querySelector<HTMLElement>(`[data-cell="${last.row}:${last.column}"]`);
    if (!cell) return;
    asked.current = false;
    cell.focus();
  });
  const go = ({ row, column }: Cell) => {
    const to = {
      row: Math.max(-1, Math.min(rows - 1, row)),
      column: Math.max(0, Math.min(columns - 1, column)),
    };
    asked.current = true;
    setActive(to);
    if (to.row >= 0) show(to.row);
    return to;
  };
  return {
    active: last,
    go,
    /** Wherever focus comes to, that cell is the one in the order of tabs. */
    onFocus: (e: FocusEvent) => {
      const [row, column] = ((e.target as HTMLElement).dataset.cell ?? '').split(':').map(Number);
      if (row !== undefined && column !== undefined && (row !== last.row || column !== last.column))
        setActive({ row, column });
    },
    /** The cell to which a key led; null where it is none of those that move. */
    move: (e: KeyboardEvent): Cell | null => {
      const to = stepOf(e, last, page());
      return to && go(to);
    },
  };
}
