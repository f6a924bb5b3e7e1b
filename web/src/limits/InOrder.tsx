import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import { Table } from '@mantine/core';
import { useCallback, type ReactNode } from 'react';
import { moved, type SegmentDraft } from './sheetDraft';

interface InOrderProps {
  segments: SegmentDraft[];
  set: ((segments: SegmentDraft[]) => void) | null;
  children: ReactNode;
}

/** Rows that are dragged into their order, by their handles; the arrows beside them do the same by keys. */
export function InOrder({ segments, set, children }: InOrderProps) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const indexOf = (key: unknown) => segments.findIndex((s) => s.key === key);
  return (
    <DndContext
      sensors={sensors}
      // What can be done by arrows is not said twice.
      accessibility={{ screenReaderInstructions: { draggable: '' } }}
      onDragEnd={({ active, over }) => {
        const [from, to] = [indexOf(active.id), indexOf(over?.id)];
        if (from >= 0 && to >= 0 && from !== to) set?.(moved(segments, from, to));
      }}
    >
      <Table.Tbody>{children}</Table.Tbody>
    </DndContext>
  );
}

/** A row that can be dragged and dropped on: what it and its handle are given. */
export function useDragged(key: SegmentDraft['key'], name: string) {
  const { setNodeRef: dragRef, listeners, transform, isDragging } = useDraggable({ id: key });
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: key });
  const ref = useCallback(
    (row: HTMLTableRowElement | null) => {
      dragRef(row);
      dropRef(row);
    },
    [dragRef, dropRef],
  );
  return {
    row: {
      ref,
      style: {
        ...(transform
          ? { transform: `translateY(${transform.y}px)`, position: 'relative' as const, zIndex: 1 }
          : {}),
        ...(isOver && !isDragging ? { background: 'var(--brass-wash)' } : {}),
      },
    },
    handle: {
      ...listeners,
      tabIndex: -1,
      'aria-label': `Drag ${name}`,
      style: { cursor: 'grab', touchAction: 'none' },
    },
  };
}
