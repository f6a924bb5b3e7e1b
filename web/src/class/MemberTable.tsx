import {
  createColumnHelper,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
  type Row,
  type SortingState,
  type Table,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { CourseDetail, MemberFields, MemberInfo } from '@nimble-bell/core/api';
import { clockWords, instantWords, zoneWords } from '@nimble-bell/core/calendar';
import { useNow } from '../app/clock';
import classes from './class.module.css';
import { INVITATION_WORDS, replyWords, scopeWords } from './words';

const ROW_PX = 40;
/** Below this many rows all are drawn: nothing is won by leaving some out. */
const FEW = 60;

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
 * Arrow keys move, Shift with them chooses along, Space chooses, Enter edits, Escape leaves the cell as it was.
 */
export function MemberTable(props: TableProps) {
  const { members, selected, select, change } = props;
  const [active, setActive] = useState(0);
  const [editing, setEditing] = useState<{ id: string; column: string } | null>(null);
  const { scroller, table, rows, grid, virtual, drawn } = useRows(members);
  const now = useNow(30_000);
  // Rows are drawn anew only for what is theirs: what they call stays the same, and looks here for the newest.
  const { toggle, edit, changeField } = useCalls({ selected, select, change, setEditing });
  const onKey = (e: KeyboardEvent) => {
    if (editing || (e.target as HTMLElement).tagName === 'INPUT') return;
    const page = Math.floor((scroller.current?.clientHeight ?? 400) / ROW_PX) - 1;
    const open = change && ((id: string) => edit(id, 'name'));
    const go = (at: number) => {
      setActive(at);
      virtual.scrollToIndex(at);
    };
    if (press(e, { rows, active, selected, select, toggle, open, page, go })) e.preventDefault();
  };
  const all = rows.length > 0 && rows.every((r) => selected.has(r.id));
  return (
    <div
      ref={scroller}
      className={`${classes.table} ${rows.length <= FEW ? classes.short : ''}`}
      role="grid"
      aria-label="Class list"
      aria-rowcount={rows.length + 1}
      aria-multiselectable
      tabIndex={0}
      onKeyDown={onKey}
    >
      <Head grid={grid} all={all} selected={selected} select={select} rows={rows} table={table} />
      <div
        role="rowgroup"
        style={rows.length <= FEW ? undefined : { height: virtual.getTotalSize(), position: 'relative' }}
      >
        {drawn.map(({ index, start }) => (
          <MemberRow
            key={rows[index]!.id}
            member={rows[index]!.original}
            course={props.course}
            chosen={selected.has(rows[index]!.id)}
            mayChange={change !== null}
            grid={grid}
            index={index}
            top={rows.length <= FEW ? null : start}
            active={index === active}
            now={clockWords(now, rows[index]!.original.zone)}
            setActive={setActive}
            toggle={toggle}
            editing={editing?.id === rows[index]!.id ? editing.column : null}
            edit={edit}
            change={changeField}
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
  active: boolean;
  /** The time where they are. */
  now: string;
  setActive: (index: number) => void;
  toggle: (id: string, on: boolean) => void;
  editing: string | null;
  edit: (id: string, column: string | null) => void;
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
      data-active={active}
      onClick={() => props.setActive(index)}
      style={{
        gridTemplateColumns: grid,
        ...(top === null
          ? {}
          : { position: 'absolute', left: 0, right: 0, transform: `translateY(${top}px)` }),
      }}
    >
      <span role="gridcell">
        <Box label={`Choose ${m.name}`} checked={chosen} change={(on) => props.toggle(m.id, on)} />
      </span>
      {NAMES.map(([name, header]) => {
        const mayEdit = props.mayChange && EDITABLE.includes(name);
        return (
          <span
            key={name}
            role="gridcell"
            className={name === 'name' ? classes.name : undefined}
            onDoubleClick={mayEdit ? () => edit(m.id, name) : undefined}
            title={mayEdit ? 'Press twice to change' : undefined}
          >
            {editing === name ? (
              <CellEditor
                label={`${header} of ${m.name}`}
                value={String(m[name as Editable] ?? '')}
                done={(value) => {
                  edit(m.id, null);
                  if (value !== null && value !== String(m[name as Editable] ?? ''))
                    props.change(m.id, { [name]: name === 'group' ? value || null : value });
                }}
              />
            ) : (
              <Cell column={name} member={m} course={props.course} now={props.now} />
            )}
          </span>
        );
      })}
    </div>
  );
});

/** A box to tick, as light as they come: there are many. */
function Box(props: { label: string; checked: boolean; some?: boolean; change: (on: boolean) => void }) {
  const { label, checked, some = false, change } = props;
  return (
    <input
      type="checkbox"
      className={classes.box}
      aria-label={label}
      checked={checked}
      ref={(box) => {
        if (box) box.indeterminate = some;
      }}
      onChange={(e) => change(e.currentTarget.checked)}
    />
  );
}

function CellEditor(props: { label: string; value: string; done: (value: string | null) => void }) {
  const [value, setValue] = useState(props.value);
  const closed = useRef(false);
  const close = (result: string | null) => {
    if (closed.current) return;
    closed.current = true;
    props.done(result);
  };
  return (
    <input
      className={classes.edit}
      aria-label={props.label}
      value={value}
      autoFocus
      onFocus={(e) => e.currentTarget.select()}
      onChange={(e) => setValue(e.currentTarget.value)}
      onBlur={() => close(value.trim())}
      onKeyDown={(e) => {
        if (e.key === 'Enter') close(value.trim());
        else if (e.key === 'Escape') close(null);
        else return;
        e.preventDefault();
        e.stopPropagation();
        (e.currentTarget.closest('[role=grid]') as HTMLElement | null)?.focus();
      }}
    />
  );
}

function Cell(props: { column: string; member: MemberInfo; course: CourseDetail; now: string }) {
  const { column: name, member: m, course } = props;
  switch (name) {
    case 'name':
      return m.preferredName ? `${m.name} (${m.preferredName})` : m.name;
    case 'email':
      return m.email.endsWith('@nimble-bell.invalid') ? (
        <span className={classes.quiet}>by class link</span>
      ) : (
        m.email
      );
    case 'role':
      return m.scope ? <span title={scopeWords(m.scope, course)}>{m.role}*</span> : m.role;
    case 'group':
      return m.group;
    case 'zone':
      return (
        <>
          {zoneWords(m.zone)} <span className="figures">{props.now}</span>
        </>
      );
    case 'invitation':
      if (m.role === 'teacher' && m.invitation === 'none') return null;
      return (
        <span
          className={
            m.invitation === 'failed' || m.invitation === 'bounced'
              ? classes.bad
              : m.invitation === 'sent'
                ? undefined
                : classes.quiet
          }
        >
          {INVITATION_WORDS[m.invitation]}
        </span>
      );
    case 'reply':
      return replyWords(m);
    case 'seen':
      return <LinkState member={m} zone={course.term.zone} />;
    default:
      return null;
  }
}

/** Whether the link in force was used, and when it ends. */
function LinkState({ member: m, zone }: { member: MemberInfo; zone: string }) {
  const now = useNow(60_000);
  if (m.linkUntil !== null && m.linkUntil <= now) return <span className={classes.quiet}>over</span>;
  if (m.role === 'teacher' && m.lastSeen === null) return null;
  const used = m.lastSeen !== null && m.lastSeen >= (m.linkAt ?? 0);
  const words = used ? instantWords(m.lastSeen!, zone) : m.linkAt ? 'replaced, not used' : 'never';
  return (
    <span className={used ? undefined : classes.quiet}>
      {words}
      {m.linkUntil !== null && `, until ${instantWords(m.linkUntil, zone)}`}
    </span>
  );
}

/** The headings: everyone chosen by one tick, each column sorted by a press. */
function Head({
  grid,
  all,
  selected,
  select,
  rows,
  table,
}: {
  grid: string;
  all: boolean;
  selected: ReadonlySet<string>;
  select: (ids: ReadonlySet<string>) => void;
  rows: Row<MemberInfo>[];
  table: Table<MemberInfo>;
}) {
  return (
    <div className={`${classes.row} ${classes.head}`} role="row" style={{ gridTemplateColumns: grid }}>
      <span role="columnheader">
        <Box
          label="Choose everyone shown"
          checked={all}
          some={!all && selected.size > 0}
          change={() => select(all ? new Set() : new Set(rows.map((r) => r.id)))}
        />
      </span>
      {table.getFlatHeaders().map((h) => {
        const sorted = h.column.getIsSorted();
        return (
          <span
            key={h.id}
            role="columnheader"
            aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
          >
            <button type="button" className={classes.sort} onClick={h.column.getToggleSortingHandler()}>
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
  setEditing,
}: {
  selected: ReadonlySet<string>;
  select: (ids: ReadonlySet<string>) => void;
  change: ((member: string, fields: MemberFields) => void) | null;
  setEditing: (value: { id: string; column: string } | null) => void;
}) {
  const latest = useRef({ selected, select, change });
  useEffect(() => {
    latest.current = { selected, select, change };
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
  return { toggle, edit, changeField };
}

/** The rows as they are sorted, and those of them that are drawn. */
function useRows(members: MemberInfo[]) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const scroller = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler leaves this one component alone
  const table = useReactTable({
    data: members,
    columns: COLUMNS,
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
  });
  const drawn =
    rows.length <= FEW
      ? rows.map((_, index) => ({ index, start: index * ROW_PX }))
      : virtual.getVirtualItems();
  return { scroller, table, rows, grid, virtual, drawn };
}

/** What a key acts on. */
interface Keyed {
  rows: Row<MemberInfo>[];
  active: number;
  selected: ReadonlySet<string>;
  select: (ids: ReadonlySet<string>) => void;
  toggle: (id: string, on: boolean) => void;
  /** Opens a person's name for change; null where the reader may not. */
  open: ((id: string) => void) | null;
  /** Rows on a page. */
  page: number;
  go: (row: number) => void;
}

/** What a key does; false where it is none of the table's. */
function press(e: KeyboardEvent, { rows, active, selected, select, toggle, open, page, go }: Keyed): boolean {
  const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: page, PageUp: -page };
  const move = (to: number) => {
    const at = Math.max(0, Math.min(rows.length - 1, to));
    go(at);
    if (e.shiftKey && rows[at]) toggle(rows[at].id, true);
  };
  const row = rows[active];
  if (steps[e.key] !== undefined) move(active + steps[e.key]!);
  else if (e.key === 'Home') move(0);
  else if (e.key === 'End') move(rows.length - 1);
  else if (e.key === ' ' && row) toggle(row.id, !selected.has(row.id));
  else if (e.key === 'Enter' && row && open) open(row.id);
  else if (e.key === 'a' && (e.ctrlKey || e.metaKey)) select(new Set(rows.map((r) => r.id)));
  else return false;
  return true;
}
