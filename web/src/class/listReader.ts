import type { Comparison, Field, KnownMember, ReadList, RosterClass } from '@nimble-bell/core/roster';

/** What a class list is read from, and how its columns, rows and likenesses were settled so far. */
export interface ReadOrder {
  text: string | null;
  files: { name: string; bytes: Uint8Array }[];
  fields: Field[] | null;
  mended: [line: number, cells: string[]][];
  settled: [line: number, as: 'same' | 'other'][];
  /** The class of a OneRoster set. */
  rosterClass: string | null;
  members: KnownMember[];
  /** Today in the term's zone. */
  today: string;
}

export interface ReadAnswer {
  list: ReadList;
  comparison: Comparison;
  /** The classes to choose from, where the files are a OneRoster set. */
  classes: RosterClass[] | null;
  encoding: string | null;
}

/** Reads class lists away from the page: five thousand rows and no stutter. Only the newest question is answered. */
export class ListReader {
  readonly #worker = new Worker(new URL('./listWorker.ts', import.meta.url), { type: 'module' });
  #asked = 0;

  read(order: ReadOrder): Promise<ReadAnswer> {
    const id = ++this.#asked;
    return new Promise((resolve, reject) => {
      const hear = ({ data }: MessageEvent<{ id: number; answer?: ReadAnswer; fault?: string }>) => {
        if (data.id !== id) return;
        this.#worker.removeEventListener('message', hear);
        if (data.answer) resolve(data.answer);
        else reject(new Error(data.fault));
      };
      this.#worker.addEventListener('message', hear);
      this.#worker.postMessage({ id, order });
    });
  }

  close() {
    this.#worker.terminate();
  }
}
