import type { Capability, Permission } from '../../limits/capabilities';
import type { SomeLimits } from '../../limits/schema';
import type { Layer, Settings } from '../../settings/index';
import type { Place } from '../kernel/schema';

/** What one person may, or may not; until an instant. */
export interface Exception {
  state: Permission;
  until: number | null;
  by: string | null;
  at: number;
}

/** What those may who are at a table, beyond the class or less than it; and who said so. */
export interface TableLimits {
  limits: SomeLimits;
  /** The rule sheet that says so, by its name; empty where none does. */
  sheet: string;
  by: string;
  at: number;
}

export interface LimitsState {
  /** College to session, as they were when the room opened and as they were changed since. */
  layers: readonly Layer[];
  /** Before a teacher has rung in, in class, or past its planned end: writing has rules of its own there. */
  time: 'early' | 'class' | 'linger';
  /** What the segment that is on says. */
  cue: Layer;
  /** By person. Those that close are known to the person and to those who teach alone. */
  exceptions: Readonly<Record<string, Partial<Record<Capability, Exception>>>>;
  /** What was set in class; each value says by whom and when. */
  live: Layer;
  /** What is open for a while; until when, an instant; and what the class had set of it before, if anything. */
  lent: {
    capability: Capability;
    until: number;
    before: Settings['limits'][Capability] | null;
    /** Closed sooner once so many students have written, and who has. */
    answers: number | null;
    answered: readonly string[];
  } | null;
  /** While there are tables: what is said of all of them, and of one otherwise. */
  tables: { all: TableLimits; own: Readonly<Record<Place, TableLimits>> } | null;
  hush: { by: string; at: number } | null;
}
