import { Button, Group, Text } from '@mantine/core';
import { scaleThreshold } from 'd3';
import type { KeyboardEvent } from 'react';
import type { MakeUpWeek, MapSlot } from '@nimble-bell/core/clashes';
import {
  countWords,
  dateWords,
  toEpochDay,
  toLocalDate,
  weekOf,
  type TermDays,
} from '@nimble-bell/core/calendar';
import classes from './makeUp.module.css';

const STEPS = ['nobody', 'a few', 'many', 'most'] as const;
/** How many are hindered, by their share: none, up to a tenth, up to a third, more. */
const stepOf = scaleThreshold<number, (typeof STEPS)[number]>([0.0001, 0.1, 0.34], STEPS);

interface Props {
  week: MakeUpWeek;
  students: number;
  days: TermDays;
  disabled: boolean;
  turn: (monday: string) => void;
  choose: (slot: MapSlot) => void;
}

/** A week of open slots: each hour's best, by how many could not come or would have to at an odd hour. */
export function MakeUpMap({ week, days, turn, ...cells }: Props) {
  return (
    <div>
      <Turn monday={week.monday} days={days} turn={turn} />
      <Hours week={week} {...cells} />
      {!week.slots.length && <Text c="dimmed">No slot is open in this week.</Text>}
      <Group gap="md" mt="xs">
        {STEPS.map((step) => (
          <Text size="sm" key={step} className={classes.key}>
            <span className={classes.swatch} data-step={step} /> {step} hindered
          </Text>
        ))}
      </Group>
    </div>
  );
}

/** Which week it is, and the way to the next. */
function Turn({ monday, days, turn }: { monday: string } & Pick<Props, 'days' | 'turn'>) {
  const first = toEpochDay(monday);
  const number = weekOf(days, first)?.number;
  const button = (label: string, to: number, disabled: boolean) => (
    <Button variant="default" size="compact-sm" disabled={disabled} onClick={() => turn(toLocalDate(to))}>
      {label}
    </Button>
  );
  return (
    <Group justify="space-between" mb="xs">
      <Text fw={600}>{number ? `Week ${number}` : `The week of ${dateWords(monday)}`}</Text>
      <Group gap="xs">
        {button('Week before', first - 7, first <= days.first)}
        {button('Week after', first + 7, first + 7 > days.last)}
      </Group>
    </Group>
  );
}

function Hours({ week, ...cell }: Pick<Props, 'week' | 'students' | 'disabled' | 'choose'>) {
  const first = toEpochDay(week.monday);
  const dates = [0, 1, 2, 3, 4, 5, 6].map((i) => toLocalDate(first + i));
  const best = bestByHour(week.slots);
  const hours = [...new Set(week.slots.map((s) => s.start.slice(0, 2)))].sort();
  // The first of them is where the tab key comes to.
  const entry = hours.flatMap((h) => dates.map((d) => `${d} ${h}`)).find((key) => best.has(key));
  return (
    <div className={classes.map} onKeyDown={step} role="grid" aria-label="Open slots of the week">
      <div role="row" className={classes.row}>
        <span role="columnheader" />
        {dates.map((d) => (
          <span key={d} role="columnheader" className={classes.day}>
            {dateWords(d)}
          </span>
        ))}
      </div>
      {hours.map((hour, y) => (
        <div role="row" className={classes.row} key={hour}>
          <span role="rowheader" className={classes.hour}>
            {hour}:00
          </span>
          {dates.map((date, x) => {
            const key = `${date} ${hour}`;
            return (
              <Cell key={date} slot={best.get(key)} at={[x, y]} tabIndex={key === entry ? 0 : -1} {...cell} />
            );
          })}
        </div>
      ))}
    </div>
  );
}

function bestByHour(slots: readonly MapSlot[]): Map<string, MapSlot> {
  const best = new Map<string, MapSlot>();
  for (const s of slots) {
    const key = `${s.date} ${s.start.slice(0, 2)}`;
    const known = best.get(key);
    if (!known || s.cost < known.cost) best.set(key, s);
  }
  return best;
}

interface CellProps {
  slot: MapSlot | undefined;
  students: number;
  at: [number, number];
  tabIndex: number;
  disabled: boolean;
  choose: (slot: MapSlot) => void;
}

function Cell({ slot, students, at, tabIndex, disabled, choose }: CellProps) {
  if (!slot) return <span role="gridcell" className={classes.none} />;
  const hindered = slot.busy + slot.unsociable;
  const odd = slot.unsociable ? `, ${countWords(slot.unsociable, 'person', 'people')} at an odd hour` : '';
  const busy = `${countWords(slot.busy, 'person', 'people')} with another class`;
  return (
    <span role="gridcell">
      <button
        type="button"
        className={classes.cell}
        data-step={stepOf(students ? hindered / students : 0)}
        data-at={at.join()}
        tabIndex={tabIndex}
        disabled={disabled}
        aria-label={`${dateWords(slot.date)} ${slot.start}: ${busy}${odd}`}
        title={slot.start}
        onClick={() => choose(slot)}
      >
        {hindered}
      </button>
    </span>
  );
}

const STEP: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const MOST_ROWS = 24;

/** From cell to cell by the arrows, over what is not open. */
function step(e: KeyboardEvent<HTMLElement>) {
  const by = STEP[e.key];
  const from = (e.target as HTMLElement).dataset.at?.split(',').map(Number);
  if (!by || !from) return;
  e.preventDefault();
  let [x, y] = from as [number, number];
  for (;;) {
    x += by[0];
    y += by[1];
    if (x < 0 || x > 6 || y < 0 || y > MOST_ROWS) return;
    const next = e.currentTarget.querySelector<HTMLElement>(`[data-at="${x},${y}"]`);
    if (next) return next.focus();
  }
}
