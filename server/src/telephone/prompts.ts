import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { LINE_WORDS } from '@nimble-bell/core/telephone';
import { newId } from '../context';

const run = promisify(execFile);
const KEPT: ReadonlySet<string> = new Set(Object.values(LINE_WORDS));
const LONGEST = 600;

/** A spoken file; `done` when it is not needed any more. */
export interface Prompt {
  file: string;
  done(): Promise<void>;
}

/** Says a text into a file. */
export type Speak = (text: string, file: string) => Promise<void>;

/** By Debian's `espeak-ng`, as Opus with 48,000 samples a second, which the relay plays. */
export const speakByEspeak: Speak = async (text, file) => {
  const wave = `${file}.wav`;
  try {
    await run('espeak-ng', ['-v', 'en', '-s', '150', '-w', wave, '--', text]);
    await run('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      wave,
      '-ar',
      '48000',
      '-ac',
      '1',
      '-c:a',
      'libopus',
      file,
    ]);
  } finally {
    await rm(wave, { force: true });
  }
};

/** What a line says, as sound: the words of the line itself are made once and kept, what is said of people is not. */
export class Prompts {
  readonly #making = new Map<string, Promise<string>>();

  constructor(
    readonly folder: string,
    readonly speak: Speak = speakByEspeak,
  ) {}

  async of(text: string): Promise<Prompt> {
    await mkdir(this.folder, { recursive: true });
    if (KEPT.has(text)) return { file: await this.#kept(text), done: async () => {} };
    const file = path.join(this.folder, `once-${newId()}.opus`);
    await this.speak(text.slice(0, LONGEST), file);
    return { file, done: () => rm(file, { force: true }) };
  }

  #kept(text: string): Promise<string> {
    const name = createHash('sha256').update(text).digest('hex').slice(0, 24);
    const file = path.join(this.folder, `${name}.opus`);
    if (existsSync(file)) return Promise.resolve(file);
    const making = this.#making.get(name) ?? this.#make(text, file).finally(() => this.#making.delete(name));
    this.#making.set(name, making);
    return making;
  }

  /** Under another name until it is whole: what a killed process left is made again. */
  async #make(text: string, file: string): Promise<string> {
    const begun = path.join(this.folder, `once-${newId()}.opus`);
    await this.speak(text, begun);
    await rename(begun, file);
    return file;
  }
}
