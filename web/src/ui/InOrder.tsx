import {
  DndContext,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { useCallback, type ReactNode } from 'react';

interface InOrderProps {
  keys: readonly UniqueIdentifier[];
  /** The one at `from` is to stand at `to`. */
  put: (from: number, to: number) => void;
  children: ReactNode;
}

/** Rows that are dragged into their order, by their handles; what stands beside them does the same by keys. */
export function InOrder({ keys, put, children }: InOrderProps) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  return (
    <DndContext
      sensors={sensors}
      // What can be done by arrows is not said twice.
      accessibility={{ screenReaderInstructions: { draggable: '' } }}
      onDragEnd={({ active, over }) => {
        const [from, to] = [keys.indexOf(active.id), over ? keys.indexOf(over.id) : -1];
        if (from >= 0 && to >= 0 && from !== to) put(from, to);
      }}
    >
      {children}
    </DndContext>
  );
}

/** A row that can be dragged and dropped on: what it and its handle are given. */
export function useDragged<E extends HTMLElement>(key: UniqueIdentifier, name: string) {
  const { setNodeRef: dragRef, listeners, transform, isDragging } = useDraggable({ id: key });
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: key });
  const ref = useCallback(
    (row: E | null) => {
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
