import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import type { ReactNode } from 'react';
import classes from './tables.module.css';

/** Somebody at a table. */
export interface Sitter {
  member: string;
  name: string;
  /** Whether they are there: an absent one's seat is kept. */
  here: boolean;
  speaks?: boolean;
  /** They came to look after it. */
  teaches?: boolean;
}

interface Props {
  name: string;
  sitters: readonly Sitter[];
  /** Who was taken up, to be seated where one presses next. */
  taken: string | null;
  take?: (member: string) => void;
  put?: () => void;
  /** It asks for whoever teaches. */
  asks?: boolean;
  children?: ReactNode;
}

/** Tables between which people are dragged; pressing a name and then a table does the same, by keys too. */
export function Dragged(props: { seat: (member: string, table: string) => void; children: ReactNode }) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  return (
    <DndContext
      sensors={sensors}
      // What can be done by pressing is not said twice.
      accessibility={{ screenReaderInstructions: { draggable: '' } }}
      onDragEnd={({ active, over }) => {
        if (over) props.seat(String(active.id), String(over.id));
      }}
    >
      {props.children}
    </DndContext>
  );
}

/** A table seen from above, its people round it. */
export function TableTop({ name, sitters, taken, take, put, asks = false, children }: Props) {
  const half = Math.ceil(sitters.length / 2);
  const { setNodeRef, isOver, active } = useDroppable({ id: name, disabled: !put });
  const elsewhere = isOver && !sitters.some((s) => s.member === active?.id);
  const side = (of: readonly Sitter[]) => (
    <ul className={classes.side}>
      {of.map((s) => (
        <li key={s.member}>
          <Sits {...{ sitter: s, taken, take }} />
        </li>
      ))}
    </ul>
  );
  const seatsHere = put && taken !== null && !sitters.some((s) => s.member === taken);
  return (
    <section
      ref={setNodeRef}
      className={classes.table}
      aria-label={name}
      data-asks={asks}
      data-over={elsewhere}
    >
      {side(sitters.slice(0, half))}
      <div className={classes.top}>
        <strong>{name}</strong>
        {seatsHere ? (
          <button type="button" className={classes.put} onClick={put}>
            Seat here
          </button>
        ) : (
          <span>{sitters.filter((s) => !s.teaches).length}</span>
        )}
      </div>
      {side(sitters.slice(half))}
      {children && <div className={classes.acts}>{children}</div>}
    </section>
  );
}

function Sits({ sitter, taken, take }: { sitter: Sitter } & Pick<Props, 'taken' | 'take'>) {
  const { member, name, here, speaks, teaches } = sitter;
  const still = !take || Boolean(teaches);
  const { setNodeRef, listeners, transform } = useDraggable({ id: member, disabled: still });
  const shared = {
    className: classes.sitter,
    'data-here': here,
    'data-speaks': speaks,
    'data-teaches': teaches,
  };
  const words = (
    <>
      {name}
      {speaks && <i className={classes.voice} role="img" aria-label="speaking" />}
    </>
  );
  if (still) return <span {...shared}>{words}</span>;
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...shared}
      {...listeners}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      aria-pressed={taken === member}
      onClick={() => take!(member)}
    >
      {words}
    </button>
  );
}
