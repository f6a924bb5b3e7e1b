import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import path from 'node:path';
import { promisify } from 'node:util';
import { ALOUD } from '@nimble-bell/core/rehearsal';
import type { Context } from '../context';
import { MadeOnce } from '../files/madeOnce';

const run = promisify(execFile);
/** Voices of Debian's `espeak-ng`, by what each says. */
const VOICES = ['en+f2', 'en+m3', 'en+f4'] as const;

/** What the one of this number says aloud, from 0, as a WAVE file: made once, and kept. */
export function voiceOf({ config }: Pick<Context, 'config'>, nr: number): Promise<string> {
  const [voice, text] = [VOICES[nr % VOICES.length]!, ALOUD[nr]!];
  const name = createHash('sha256').update(`${voice} ${text}`).digest('hex').slice(0, 24);
  const made = new MadeOnce(path.join(config.dataDir, 'voices'));
  return made.of(`${name}.wav`, async (file) => {
    await run('espeak-ng', ['-v', voice, '-s', '145', '-w', file, '--', text]);
  });
}
