import type { Active, Announcements, Over, ScreenReaderInstructions } from '@dnd-kit/core';

export interface DragWords {
  /** What is dragged, as people call it. */
  what: (id: string) => string;
  /** Where it would lie now; nothing where that is where it was. */
  where: (active: Active, over: Over | null) => string | null;
  /** How it is moved once it is picked up. */
  how: string;
}

/** What is said aloud while something is dragged by key: what it is, and where it would lie. */
export function dragWords({ what, where, how }: DragWords) {
  const at = (active: Active, over: Over | null) => where(active, over) ?? 'where it was';
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${what(String(active.id))}, picked up. ${how}`,
    onDragOver: ({ active, over }) => at(active, over),
    onDragEnd: ({ active, over }) => `${what(String(active.id))}, put down: ${at(active, over)}.`,
    onDragCancel: ({ active }) => `${what(String(active.id))}, left where it was.`,
  };
  const screenReaderInstructions: ScreenReaderInstructions = { draggable: 'Space picks it up.' };
  return { announcements, screenReaderInstructions };
}
