import type { Role } from '@nimble-bell/core/api';

const collator = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/** Texts in the order that the reader's own language has them, numbers by their size. */
export const inOrder = (a: string, b: string): number => collator.compare(a, b);

const PLACE: Record<Role, number> = { teacher: 0, assistant: 1, student: 2, guest: 3, observer: 4 };

/** People as a class list has them: those who teach first, then by name. */
export const inListOrder = <T extends { role: Role; name: string }>(people: readonly T[]): T[] =>
  [...people].sort((a, b) => PLACE[a.role] - PLACE[b.role] || inOrder(a.name, b.name));
