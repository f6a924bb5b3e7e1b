import { useMemo, useRef, useState } from 'react';
import { Term } from '@nimble-bell/core/api';
import {
  dateWords,
  termDays,
  toEpochDay,
  toLocalDate,
  WEEKDAYS,
  type TermDays,
} from '@nimble-bell/core/calendar';
import classes from './college.module.css';

export interface Span {
  from: string;
  to: string;
}

interface Props {
  term: Term;
  chosen: Span | null;
  choose: (span: Span | null) => void;
}

/**
 * The term as its weeks, a row each, to press and drag on. By keyboard: the arrows walk over the days, shift with an
 * arrow takes more of them.
 */
export function TermCalendar({ term, chosen, choose }: Props) {
  const days = useMemo(
    () => (Term.safeParse({ ...term, name: term.name || 'x' }).success ? termDays(term) : null),
    [term],
  );
  if (!days) return <p className={classes.none}>Give a first and a last day: the term appears here.</p>;
  return <Weeks term={term} days={days} chosen={chosen} choose={choose} />;
}

function Weeks({ term, days, chosen, choose }: Props & { days: ReturnType<typeof termDays> }) {
  const [anchor, setAnchor] = useState<number | null>(null);
  const grid = useRef<HTMLDivElement>(null);
  const spanOf = (a: number, b: number): Span => ({
    from: toLocalDate(Math.min(a, b)),
    to: toLocalDate(Math.max(a, b)),
  });
  const within = (day: number) =>
    chosen !== null && toLocalDate(day) >= chosen.from && toLocalDate(day) <= chosen.to;
  const focus = (day: number) => grid.current?.querySelector<HTMLElement>(`[data-day="${day}"]`)?.focus();
  const walk = useWalk({ days, focus, choose, spanOf, anchor, setAnchor });
  const swaps = new Map(term.daySwaps.map((s) => [toEpochDay(s.date), s]));
  return (
    <div
      ref={grid}
      className={classes.calendar}
      role="grid"
      aria-label="The term"
      onPointerUp={() => setAnchor(null)}
      onPointerLeave={() => setAnchor(null)}
    >
      <Weekdays />
      {days.weeks.map((week, row) => (
        <div role="row" key={week.monday} className={classes.row}>
          <span role="rowheader" className={classes.weekName} title={week.breakName}>
            {week.number ?? '–'}
          </span>
          {[0, 1, 2, 3, 4, 5, 6].map((i) => {
            const day = week.monday + i;
            if (day < days.first || day > days.last)
              return <span role="gridcell" key={day} className={classes.outside} />;

            return (
              <Day
                key={day}
                days={days}
                day={day}
                swaps={swaps}
                within={within}
                row={row}
                setAnchor={setAnchor}
                choose={choose}
                spanOf={spanOf}
                anchor={anchor}
                walk={walk}
              />
            );
          })}
        </div>
      ))}
    </div>
  );
}

function Weekdays() {
  return (
    <div role="row" className={classes.row}>
      <span role="columnheader" className={classes.weekName}>
        Week
      </span>
      {WEEKDAYS.map((d) => (
        <span role="columnheader" key={d} className={classes.head}>
          {d.slice(0, 3)}
        </span>
      ))}
    </div>
  );
}

interface DayProps {
  days: TermDays;
  day: number;
  swaps: Map<
    number,
    {
      date: string;
      follows: 'monday' | 'tuesday' | 'wednesday' | 'thursday' | 'friday' | 'saturday' | 'sunday';
      name: string;
    }
  >;
  within: (day: number) => boolean;
  row: number;
  setAnchor: (value: number | null) => void;
  choose: (span: Span | null) => void;
  spanOf: (a: number, b: number) => Span;
  anchor: number | null;
  walk: (day: number, event: React.KeyboardEvent) => void;
}

function Day(props: DayProps) {
  const { days, day, swaps, within, row, setAnchor, choose, spanOf, anchor, walk } = props;
  const off = days.follows[day - days.first]! < 0;
  const swap = swaps.get(day);
  const reason = days.reasons.get(day);
  const date = toLocalDate(day);
  const first = date.endsWith('-01') || day === days.first;
  return (
    <button
      type="button"
      role="gridcell"

      data-day={day}
      className={classes.day}
      data-off={off || undefined}
      data-swap={(!off && swap && true) || undefined}
      aria-selected={within(day)}
      aria-label={`${dateWords(date)}${reason ? `: ${reason}` : ''}`}
      title={reason}
      tabIndex={row === 0 && day === days.first ? 0 : within(day) ? 0 : -1}
      onPointerDown={(e) => {
        e.currentTarget.releasePointerCapture?.(e.pointerId);
        setAnchor(day);
        choose(spanOf(day, day));
      }}
      onPointerEnter={(e) => {
        if (anchor !== null && e.buttons === 1) choose(spanOf(anchor, day));
      }}
      onClick={(e) => {
        if (e.detail === 0) choose(spanOf(day, day));
      }}
      onKeyDown={(e) => walk(day, e)}
    >
      {first ? dateWords(date).slice(4) : Number(date.slice(8))}
      {swap && !off && <em>{swap.follows.slice(0, 3)}</em>}
    </button>
  );
}

/** The arrows walk over the days; shift with an arrow takes more of them. */
function useWalk({
  days,
  focus,
  choose,
  spanOf,
  anchor,
  setAnchor,
}: {
  days: TermDays;
  focus: (day: number) => void;
  choose: (span: Span | null) => void;
  spanOf: (a: number, b: number) => Span;
  anchor: number | null;
  setAnchor: (value: number | null) => void;
}) {
  return (day: number, event: React.KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }[event.key];
    if (!step) return;
    event.preventDefault();
    const to = Math.min(days.last, Math.max(days.first, day + step));
    focus(to);
    if (event.shiftKey) choose(spanOf(anchor ?? day, to));
    if (!event.shiftKey) setAnchor(null);
    else if (anchor === null) setAnchor(day);
  };
}
