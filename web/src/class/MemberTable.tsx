import {
  createColumnHelper,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
  type Row,
  type SortingState,
  type Table,
} from '@tanstack/react-table';
import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import { memo, useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { CourseDetail, MemberFields, MemberInfo } from '@nimble-bell/core/api';
import { clockWords } from '@nimble-bell/core/calendar';
import { inOrder } from '../app/order';
import { useNow } from '../app/clock';
import classes from './class.module.css';
import { Box, Cell as Shown, CellEditor } from './MemberCells';
import { useCells, type Cell } from '../ui/useCells';
import { replyWords } from './words';

const ROW_PX = 40;
/** Below this many rows all are drawn: nothing is won by leaving some out. */
const FEW = 60;

/** In the order of the reader's own language; what is a number by number. */
function byReader(a: Row<MemberInfo>, b: Row<MemberInfo>, id: string): number {
  const [x, y] = [a.getValue(id), b.getValue(id)];
  if (typeof x === 'number' && typeof y === 'number') return x - y;
  return inOrder(String(x ?? ''), String(y ?? ''));
}

const column = createColumnHelper<MemberInfo>();
const seen = (m: MemberInfo) => m.lastSeen ?? 0;
const COLUMNS = [
  column.accessor('name', { header: 'Name', size: 180 }),
  column.accessor('email', { header: 'E-mail', size: 276 }),
  column.accessor('role', { header: 'Role', size: 84 }),
  column.accessor((m) => m.group ?? '', { id: 'group', header: 'Group', size: 64 }),
  column.accessor('zone', { header: 'Zone, time there', size: 160 }),
  column.accessor('invitation', { header: 'Invitation', size: 104 }),
  column.accessor(replyWords, { id: 'reply', header: 'Reply', size: 100 }),
  column.accessor(seen, { id: 'seen', header: 'Link last used', size: 140 }),
];
/** Each column's id and heading. */
const NAMES = COLUMNS.map(
  (c) => [c.id ?? (c as { accessorKey: string }).accessorKey, String(c.header)] as const,
);
type Editable = 'name' | 'email' | 'group' | 'zone';
const EDITABLE: readonly string[] = ['name', 'email', 'group', 'zone'] satisfies Editable[];

export interface TableProps {
  course: CourseDetail;
  members: MemberInfo[];
  selected: ReadonlySet<string>;
  select: (ids: ReadonlySet<string>) => void;
  /** Changes a field of one person; none where the reader may not. */
  change: ((member: string, fields: MemberFields) => void) | null;
}

/**
 * The class list: sorted by any column, edited where it stands, chosen by keyboard. Only the rows in sight are drawn.
 * Arrow keys go from cell to cell, Shift with them chooses along, Space chooses, Enter or F2 edits a cell, Escape leaves
 * it as it was.
 */
export function MemberTable(props: TableProps) {
  const { members, selected, select, change } = props;
  const [editing, setEditing] = useState<{ id: string; column: string } | null>(null);
  const { scroller, table, rows, grid, height, drawn, show } = useRows(members);
  const cells = useCells({
    grid: scroller,
    rows: rows.length,
    columns: NAMES.length + 1,
    page: () => Math.floor((scroller.current?.clientHeight ?? 400) / ROW_PX) - 1,
    show,
  });
  const { active, go } = cells;
  const now = useNow(30_000);
  // Rows are drawn anew only for what is theirs: what they call stays the same, and looks here for the newest.
  const calls = useCalls({ selected, select, change, go, setEditing });
  const shared = { ...calls, course: props.course, mayChange: change !== null, grid };
  const onKey = (e: KeyboardEvent) => {
    if (editing) return;
    if (press(e, { rows, cells, selected, select, toggle: calls.toggle, edit: change && calls.edit }))
      e.preventDefault();
  };
  const all = rows.length > 0 && rows.every((r) => selected.has(r.id));
  return (
    <div
      ref={scroller}
      className={`${classes.table} ${rows.length <= FEW ? classes.short : ''}`}
      role="grid"
      aria-label="Class list"
      aria-rowcount={rows.length + 1}
      aria-colcount={NAMES.length + 1}
      aria-multiselectable
      onKeyDown={onKey}
      onFocus={cells.onFocus}
    >
      <Head
        grid={grid}
        all={all}
        selected={selected}
        select={select}
        rows={rows}
        table={table}
        active={active.row === -1 ? active.column : null}
      />
      <div role="rowgroup" style={height === null ? undefined : { height, position: 'relative' }}>
        {drawn.map(({ index, start }) => (
          <MemberRow
            key={rows[index]!.id}
            {...shared}
            member={rows[index]!.original}
            chosen={selected.has(rows[index]!.id)}
            index={index}
            top={height === null ? null : start}
            active={index === active.row ? active.column : null}
            now={clockWords(now, rows[index]!.original.zone)}
            editing={editing?.id === rows[index]!.id ? editing.column : null}
          />
        ))}
      </div>
    </div>
  );
}

interface RowProps {
  member: MemberInfo;
  course: CourseDetail;
  chosen: boolean;
  mayChange: boolean;
  grid: string;
  index: number;
  /** Where it stands among many, px; null where all are drawn. */
  top: number | null;
  /** The column of the cell that is in the order of tabs, where it is in this row. */
  active: number | null;
  /** The time where they are. */
  now: string;
  toggle: (id: string, on: boolean) => void;
  editing: string | null;
  edit: (id: string, column: string | null) => void;
  /** An editor was closed by key: its cell has focus again. */
  closed: (row: number, column: number) => void;
  change: (id: string, fields: MemberFields) => void;
}

const MemberRow = memo(function MemberRow(props: RowProps) {
  const { member: m, grid, top, active, chosen, editing, edit, index } = props;
  return (
    <div
      className={classes.row}
      role="row"
      aria-rowindex={index + 2}
      aria-selected={chosen}
      data-active={active !== null}
      style={{
        gridTemplateColumns: grid,
        ...(top === null
          ? {}
          : { position: 'absolute', left: 0, right: 0, transform: `translateY(${top}px)` }),
      }}
    >
      <span role="gridcell" aria-colindex={1}>
        <Box
          label={`Choose ${m.name}`}
          checked={chosen}
          change={(on) => props.toggle(m.id, on)}
          cell={`${index}:0`}
          active={active === 0}
        />
      </span>
      {NAMES.map(([name, header], i) => {
        const mayEdit = props.mayChange && EDITABLE.includes(name);
        return (
          <span
            key={name}
            role="gridcell"
            aria-colindex={i + 2}
            aria-readonly={!mayEdit}
            tabIndex={active === i + 1 ? 0 : -1}
            data-cell={`${index}:${i + 1}`}
            className={name === 'name' ? classes.name : undefined}
            onDoubleClick={mayEdit ? () => edit(m.id, name) : undefined}
            title={wholeOf(name, m, mayEdit)}
            aria-label={mayEdit && !m[name as Editable] ? 'none' : undefined}
          >
            {editing === name ? (
              <CellEditor
                label={`${header} of ${m.name}`}
                value={String(m[name as Editable] ?? '')}
                done={(value, byKey) => {
                  edit(m.id, null);
                  if (byKey) props.closed(index, i + 1);
                  if (value !== null && value !== String(m[name as Editable] ?? ''))
                    props.change(m.id, { [name]: name === 'group' ? value || null : value });
                }}
              />
            ) : (
              <Shown column={name} member={m} course={props.course} now={props.now} />
            )}
          </span>
        );
      })}
    </div>
  );
});

/** What a narrow cell may cut, whole; and that it can be changed. */
const wholeOf = (column: string, m: MemberInfo, mayEdit: boolean): string | undefined =>
  [
    column === 'name' || column === 'email' ? m[column] : '',
    mayEdit ? 'Press twice, or Enter, to change' : '',
  ]
    .filter(Boolean)
    .join('. ') || undefined;

/** The headings: everyone chosen by one tick, each column sorted by a press. */
function Head({
  grid,
  all,
  selected,
  select,
  rows,
  table,
  active,
}: {
  grid: string;
  all: boolean;
  selected: ReadonlySet<string>;
  select: (ids: ReadonlySet<string>) => void;
  rows: Row<MemberInfo>[];
  table: Table<MemberInfo>;
  active: number | null;
}) {
  return (
    <div
      className={`${classes.row} ${classes.head}`}
      role="row"
      aria-rowindex={1}
      style={{ gridTemplateColumns: grid }}
    >
      <span role="columnheader" aria-colindex={1}>
        <Box
          label="Choose everyone shown"
          cell="-1:0"
          active={active === 0}
          checked={all}
          some={!all && selected.size > 0}
          change={() => select(all ? new Set() : new Set(rows.map((r) => r.id)))}
        />
      </span>
      {table.getFlatHeaders().map((h, i) => {
        const sorted = h.column.getIsSorted();
        return (
          <span
            key={h.id}
            role="columnheader"
            aria-colindex={i + 2}
            aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
          >
            <button
              type="button"
              className={classes.sort}
              data-cell={`-1:${i + 1}`}
              tabIndex={active === i + 1 ? 0 : -1}
              onClick={h.column.getToggleSortingHandler()}
            >
              {String(h.column.columnDef.header)}
              {sorted === 'asc' ? ' ↑' : sorted === 'desc' ? ' ↓' : ''}
            </button>
          </span>
        );
      })}
    </div>
  );
}

/** Rows are drawn anew only for what is theirs: what they call stays the same, and looks here for the newest. */
function useCalls({
  selected,
  select,
  change,
  go,
  setEditing,
}: {
  selected: ReadonlySet<string>;
  select: (ids: ReadonlySet<string>) => void;
  change: ((member: string, fields: MemberFields) => void) | null;
  go: (to: Cell) => void;
  setEditing: (value: { id: string; column: string } | null) => void;
}) {
  const latest = useRef({ selected, select, change, go });
  useEffect(() => {
    latest.current = { selected, select, change, go };
  });
  const toggle = useCallback((id: string, on: boolean) => {
    const next = new Set(latest.current.selected);
    if (on) next.add(id);
    else next.delete(id);
    latest.current.select(next);
  }, []);
  const edit = useCallback(
    (id: string, name: string | null) => setEditing(name ? { id, column: name } : null),
    [setEditing],
  );
  const changeField = useCallback(
    (id: string, fields: MemberFields) => latest.current.change?.(id, fields),
    [],
  );
  const closed = useCallback((row: number, column: number) => latest.current.go({ row, column }), []);
  return { toggle, edit, change: changeField, closed };
}

/** The rows as they are sorted, and those of them that are drawn. */
function useRows(members: MemberInfo[]) {
  const around = useRef(0);
  const [sorting, setSorting] = useState<SortingState>([]);
  const scroller = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler leaves this one component alone
  const table = useReactTable({
    data: members,
    columns: COLUMNS,
    defaultColumn: { sortingFn: byReader },
    state: { sorting },
    onSortingChange: setSorting,
    getRowId: (m) => m.id,
    autoResetPageIndex: false,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const { rows } = table.getRowModel();
  const grid = useMemo(
    () => `24px ${COLUMNS.map((c) => `minmax(${c.size! * 0.6}px, ${c.size}fr)`).join(' ')}`,
    [],
  );
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
    // The row with the cell that is in the order of tabs is always drawn.
    rangeExtractor: (range) =>
      [
        ...new Set([Math.min(Math.max(around.current, 0), range.count - 1), ...defaultRangeExtractor(range)]),
      ].sort((a, b) => a - b),
  });
  const drawn =
    rows.length <= FEW
      ? rows.map((_, index) => ({ index, start: index * ROW_PX }))
      : virtual.getVirtualItems();
  const height = rows.length <= FEW ? null : virtual.getTotalSize();
  const show = (row: number) => {
    around.current = row;
    virtual.scrollToIndex(row);
  };
  return { scroller, table, rows, grid, height, drawn, show };
}

/** What a key acts on. */
interface Keyed {
  rows: Row<MemberInfo>[];
  cells: ReturnType<typeof useCells>;
  selected: ReadonlySet<string>;
  select: (ids: ReadonlySet<string>) => void;
  toggle: (id: string, on: boolean) => void;
  /** Opens a cell for change; null where the reader may not. */
  edit: ((id: string, column: string) => void) | null;
}

/** What a key does; false where it is none of the table's. */
function press(e: KeyboardEvent, { rows, cells, selected, select, toggle, edit }: Keyed): boolean {
  const to = cells.move(e);
  if (to) {
    if (e.shiftKey && rows[to.row]) toggle(rows[to.row]!.id, true);
    return true;
  }
  const row = rows[cells.active.row];
  const [column] = NAMES[cells.active.column - 1] ?? [];
  if (e.key === 'a' && (e.ctrlKey || e.metaKey)) select(new Set(rows.map((r) => r.id)));
  else if (!row) return false;
  // A box ticks itself.
  else if (e.key === ' ' && (e.target as HTMLElement).tagName === 'INPUT') return false;
  else if (e.key === ' ') toggle(row.id, !selected.has(row.id));
  else if (e.key === 'Enter' || e.key === 'F2') {
    if (!edit || !column || !EDITABLE.includes(column)) return false;
    edit(row.id, column);
  } else return false;
  return true;
}
