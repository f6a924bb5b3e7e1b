import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { DATA, PORT, ROOT, startProduct } from './support/product';

const start = (environment: Record<string, string>) => {
  const env = { ...process.env, NB_PORT: String(PORT), NB_DATA: DATA, ...environment };
  const { status, stdout, stderr } = spawnSync(process.execPath, ['scripts/start.mjs'], {
    cwd: ROOT,
    env,
    encoding: 'utf8',
  });
  return { status, said: stdout + stderr };
};
const other = path.join(ROOT, '.tmp/start');

test.afterAll(() => rmSync(other, { recursive: true, force: true }));

test('a second start on the same data, a port in use, and a wrong setting are refused in a sentence', () => {
  const same = start({});
  expect(same.status).toBe(1);
  expect(same.said).toMatch(/Nimble Bell is running on this data already \(process \d+\)\. Stop it first/);
  const port = start({ NB_DATA: other });
  expect(port.status).toBe(1);
  expect(port.said).toContain(`Port ${PORT} (app) is in use by another program.`);
  expect(start({ NB_NOW: 'yesterday' }).said).toContain('NB_NOW is an instant such as');
  for (const { said } of [same, port]) expect(said).not.toContain('    at ');
});

/** Ends what this file started, also where a test ran out of time. */
let running: (() => Promise<unknown>) | null = null;
test.afterEach(async () => {
  await running?.();
  running = null;
});

test('a half-finished data folder is laid anew; a second start is quick and keeps the data', async () => {
  test.setTimeout(240_000);
  mkdirSync(path.join(other, 'db'), { recursive: true });
  writeFileSync(path.join(other, 'db/ibdata1'), 'half');
  const port = PORT + 20;
  const api = `http://127.0.0.1:${port}/api`;
  const links = async () => (await (await fetch(`${api}/demo`)).json()).links;
  running = await startProduct(port, other, []);
  const before = await links();
  await running();
  await expect(fetch(`${api}/health`)).rejects.toThrow();
  const began = Date.now();
  running = await startProduct(port, other, []);
  console.log(`the second start took ${Date.now() - began} ms`);
  expect(await links()).toEqual(before);
});
