import { cp } from 'node:fs/promises';
import path from 'node:path';
import { build } from 'esbuild';
import { build as buildPages } from 'vite';

const root = path.resolve(new URL('..', import.meta.url).pathname);

/** Our own workspace is bundled in; every package stays outside. */
const packagesOutside = {
  name: 'packages-outside',
  setup({ onResolve }) {
    onResolve({ filter: /^[^./]/ }, ({ path: name, kind }) =>
      kind === 'entry-point' || name.startsWith('@nimble-bell/') ? undefined : { path: name, external: true },
    );
  },
};

const entry = (file) => path.join(root, 'server/src', file);
await build({
  entryPoints: { main: entry('main.ts'), mailbox: entry('standins/mailbox.ts') },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  outdir: path.join(root, 'server/dist'),
  plugins: [packagesOutside],
  logLevel: 'warning',
});
await cp(path.join(root, 'server/src/db/migrations'), path.join(root, 'server/dist/migrations'), {
  recursive: true,
});
await buildPages({ root: path.join(root, 'web'), logLevel: 'warn' });
