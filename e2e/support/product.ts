import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('../..', import.meta.url));
export const PORT = Number(process.env.NB_TEST_PORT ?? 8310);
export const BASE_URL = `http://127.0.0.1:${PORT}`;
export const DATA = path.join(ROOT, '.tmp/e2e');
/** A Tuesday evening in Halifax, half an hour before class: the demo is laid around it. */
export const NOW = '2026-10-06T21:00:00Z';

/** Starts the product as its users do, on the tests' ports with the tests' data; ends it by its own process id. */
export async function startProduct(
  port = PORT,
  data = DATA,
  options = ['--fresh'],
  more: NodeJS.ProcessEnv = {},
): Promise<() => Promise<void>> {
  const child = spawn(process.execPath, ['scripts/start.mjs', ...options], {
    cwd: ROOT,
    env: {
      ...process.env,
      NB_PORT: String(port),
      NB_DATA: data,
      NB_NOW: NOW,
      NB_GATHER_MS: '1500',
      LOG_LEVEL: 'warn',
      ...more,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  await untilReady(child);
  return () =>
    new Promise((resolve) => {
      if (child.exitCode !== null || child.signalCode !== null) return resolve();
      child.once('exit', () => resolve());
      child.kill('SIGTERM');
    });
}

function untilReady(child: ChildProcess): Promise<void> {
  return new Promise((resolve, reject) => {
    let said = '';
    const hear = (chunk: Buffer) => {
      said += chunk.toString();
      if (said.includes('Ready in')) resolve();
    };
    child.stdout!.on('data', hear);
    child.stderr!.on('data', hear);
    child.once('exit', (code) => reject(new Error(`The product did not start (${code}).\n${said}`)));
  });
}

/** The process id of a part of the running product: app, relay, database, mailbox. */
export const pidOf = (part: string, data = DATA): number =>
  Number(readFileSync(path.join(data, `run/${part}.pid`), 'utf8'));
