import { AskWorker } from '../app/askWorker';
import type { Field, KnownMember, ListSummary, RowKind, Settlement } from '@nimble-bell/core/roster';

/** What a class list is read from, and how its columns, rows and likenesses were settled so far. */
export interface ReadOrder {
  text: string | null;
  files: { name: string; bytes: Uint8Array }[];
  fields: Field[] | null;
  mended: [line: number, cells: string[]][];
  settled: [line: number, as: Settlement][];
  /** The class of a OneRoster set. */
  rosterClass: string | null;
  members: KnownMember[];
  /** Today in the term's zone. */
  today: string;
}

/** What of the list read last is to be written. */
export interface SaveOrder {
  drop: string[];
  invite: boolean;
}

/** Rows of one kind, from a place on. */
export interface MoreOrder {
  kind: RowKind;
  from: number;
  count: number;
}

export type ListQuestion = { read: ReadOrder } | { save: SaveOrder } | { more: MoreOrder };

/**
 * Reads class lists away from the page: five thousand rows and no stutter. The rows stay with the worker; the page has
 * the counts and the first of each kind, and at last the request that writes them, as text.
 */
export class ListReader {
  readonly #worker = new AskWorker<ListQuestion>(
    new Worker(new URL('./listWorker.ts', import.meta.url), { type: 'module' }),
  );

  read(order: ReadOrder): Promise<ListSummary> {
    return this.#worker.ask<ListSummary>({ read: order });
  }

  /** The body of the request that writes what was read last. */
  save(order: SaveOrder): Promise<string> {
    return this.#worker.ask<string>({ save: order });
  }

  /** The next rows of what was read last. */
  more<Row>(order: MoreOrder): Promise<Row[]> {
    return this.#worker.ask<Row[]>({ more: order });
  }

  close() {
    this.#worker.close();
  }
}
