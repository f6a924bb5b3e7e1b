#!/usr/bin/env node
import { readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const here = path.dirname(fileURLToPath(import.meta.url));
const bundle = path.join(here, 'dist/main.mjs');

/** When the newest of our sources was written. */
const newest = (folder) =>
  Math.max(
    0,
    ...readdirSync(folder, { recursive: true })
      .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
      .map((name) => statSync(path.join(folder, name)).mtimeMs),
  );
const builtAt = statSync(bundle, { throwIfNoEntry: false })?.mtimeMs ?? 0;
if (builtAt < Math.max(newest(path.join(here, 'src')), newest(path.join(here, '../core/src')))) {
  const { buildCommand } = await import('../scripts/lib/buildCommand.mjs');
  await buildCommand();
}
const { main } = await import(bundle);
await main();
