import { existsSync } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { newId } from '../context';

/** Files that are made when they are first wished for, and kept: under another name until they are whole, so that what a killed process left is made again. */
export class MadeOnce {
  readonly #making = new Map<string, Promise<string>>();

  constructor(readonly folder: string) {}

  /** The file of this name; `make` writes it into the file that it is given. */
  of(name: string, make: (file: string) => Promise<void>): Promise<string> {
    const file = path.join(this.folder, name);
    if (existsSync(file)) return Promise.resolve(file);
    const making = this.#making.get(name) ?? this.#make(file, make).finally(() => this.#making.delete(name));
    this.#making.set(name, making);
    return making;
  }

  /** A name for a file that is not whole yet, or not kept. */
  unnamed(extension: string): string {
    return path.join(this.folder, `once-${newId()}${extension}`);
  }

  async #make(file: string, make: (file: string) => Promise<void>): Promise<string> {
    await mkdir(this.folder, { recursive: true });
    const begun = this.unnamed(path.extname(file));
    await make(begun);
    await rename(begun, file).catch(async (error: unknown) => {
      // Another process was first with a folder: they are the same.
      if (!existsSync(file)) throw error;
      await rm(begun, { recursive: true, force: true });
    });
    return file;
  }
}
