import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdir, rm } from 'node:fs/promises';
import { promisify } from 'node:util';
import { LINE_WORDS } from '@nimble-bell/core/telephone';
import { MadeOnce } from '../files/madeOnce';

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
  readonly #kept: MadeOnce;

  constructor(
    readonly folder: string,
    readonly speak: Speak = speakByEspeak,
  ) {
    this.#kept = new MadeOnce(folder);
  }

  async of(text: string): Promise<Prompt> {
    if (KEPT.has(text)) {
      const name = createHash('sha256').update(text).digest('hex').slice(0, 24);
      const file = await this.#kept.of(`${name}.opus`, (begun) => this.speak(text, begun));
      return { file, done: async () => {} };
    }
    await mkdir(this.folder, { recursive: true });
    const file = this.#kept.unnamed('.opus');
    await this.speak(text.slice(0, LONGEST), file);
    return { file, done: () => rm(file, { force: true }) };
  }
}
