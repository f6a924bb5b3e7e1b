import { spawnSync } from 'node:child_process';
import path from 'node:path';
import {
  checkNode,
  ensureBuilt,
  ensureModules,
  ensurePackages,
  PRODUCT_PACKAGES,
  ROOT,
} from './lib/install.mjs';
import { orSay } from './lib/say.mjs';

/** npm run bench [-- dates|limits|media]: the figures, each beside a named peer or limit of the same run. */
async function bench() {
  checkNode();
  ensurePackages([...PRODUCT_PACKAGES, 'chromium']);
  ensureModules();
  await ensureBuilt();
  const { build } = await import('esbuild');
  const out = path.join(ROOT, '.tmp/bench/main.mjs');
  await build({
    entryPoints: [path.join(ROOT, 'scripts/bench/main.ts')],
    outfile: out,
    bundle: true,
    platform: 'node',
    format: 'esm',
    external: [
      '@playwright/test',
      'socket.io',
      'socket.io-client',
      'rrule',
      'temporal-polyfill',
      'ical.js',
      'zod',
    ],
    define: { 'import.meta.url': JSON.stringify(`file://${path.join(ROOT, 'e2e/support/product.ts')}`) },
    logLevel: 'warning',
  });
  const { status } = spawnSync(process.execPath, [out, ...process.argv.slice(2)], {
    cwd: ROOT,
    stdio: 'inherit',
  });
  process.exit(status ?? 1);
}

orSay(bench());
