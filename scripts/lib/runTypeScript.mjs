import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { ensureTestable, ROOT } from './install.mjs';

const OUTSIDE = [
  '@playwright/test',
  'socket.io',
  'socket.io-client',
  'rrule',
  'temporal-polyfill',
  'ical.js',
  'zod',
  'nodemailer',
  'mysql2',
  'lighthouse',
];

/** Installs what is missing, bundles one of our scripts and runs it against the built product. */
export async function runTypeScript(entry) {
  await ensureTestable();
  const { build } = await import('esbuild');
  const out = path.join(ROOT, '.tmp/scripts', `${path.basename(path.dirname(entry))}.mjs`);
  await build({
    entryPoints: [path.join(ROOT, entry)],
    outfile: out,
    bundle: true,
    platform: 'node',
    format: 'esm',
    external: OUTSIDE,
    // The tests' support finds the project's folder from its own place.
    define: { 'import.meta.url': JSON.stringify(`file://${path.join(ROOT, 'e2e/support/product.ts')}`) },
    logLevel: 'warning',
  });
  const { status } = spawnSync(process.execPath, [out, ...process.argv.slice(2)], {
    cwd: ROOT,
    stdio: 'inherit',
  });
  process.exit(status ?? 1);
}
