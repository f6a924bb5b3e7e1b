import { execFile, spawn } from 'node:child_process';
import { mkdir, readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import type { Context } from '../context';

const under = (folder: string) => (ctx: Context) => path.join(ctx.config.dataDir, 'recordings', folder);
/** What the relay writes; what is prepared of it while class is on; and what is watched. */
export const rawDir = under('raw');
export const piecesDir = under('pieces');
export const readyDir = under('ready');
/** And what somebody takes along. */
export const exportsDir = under('exports');

/** A recording's own folder of those. */
export async function folderOf(dir: string, recording: string): Promise<string> {
  const folder = path.join(dir, recording);
  await mkdir(folder, { recursive: true });
  return folder;
}

/** Everything in a folder that begins so. */
export async function removeBeginning(dir: string, beginning: string): Promise<void> {
  for (const name of await readdir(dir).catch(() => [] as string[]))
    if (name.startsWith(beginning)) await rm(path.join(dir, name), { recursive: true, force: true });
}

const execute = promisify(execFile);
const MOST_SAID = 1 << 26;
/** A program that is not done by then stands still, ms. */
const STANDS_STILL_MS = 30_000;

/**
 * A program of the system, to its end. One that is `patient` leaves the machine to whatever else there is to do. The relay's
 * own takes a second for a minute; seldom it stands still at its beginning: then it is ended, and begun once more.
 */
export async function runProgram(
  program: 'ffmpeg' | 'ffprobe' | 'janus-pp-rec',
  args: readonly string[],
  { patient = false, stillMs = STANDS_STILL_MS }: { patient?: boolean; stillMs?: number } = {},
): Promise<{ stdout: string; stderr: string }> {
  const [first, rest] = patient ? ['nice', ['-n', '15', program, ...args]] : [program, [...args]];
  const options = { maxBuffer: MOST_SAID, env: process.env };
  if (program !== 'janus-pp-rec') return execute(first, rest, options);
  const limited = () => execute(first, rest, { ...options, timeout: stillMs, killSignal: 'SIGKILL' });
  try {
    return await limited();
  } catch (error) {
    if (!(error as { killed?: boolean }).killed) throw error;
    return limited();
  }
}

/** ffmpeg, patiently, saying how far it has come, ms; it is ended where `signal` says so. */
export async function runFar(
  args: readonly string[],
  { far, signal }: { far: (ms: number) => void; signal: AbortSignal },
): Promise<void> {
  const child = spawn('nice', ['-n', '15', 'ffmpeg', '-progress', 'pipe:1', ...args], {
    signal,
    env: process.env,
  });
  let said = '';
  child.stderr.on('data', (data: Buffer) => {
    said = (said + data.toString()).slice(-4000);
  });
  child.stdout.on('data', (data: Buffer) => {
    const at = /out_time_us=(\d+)/.exec(data.toString())?.[1];
    if (at) far(Number(at) / 1000);
  });
  await new Promise<void>((resolve, reject) => {
    child.on('error', reject);
    child.on('close', (code) =>
      code === 0 ? resolve() : reject(new Error(`ffmpeg ended with ${code}: ${said}`)),
    );
  });
}
