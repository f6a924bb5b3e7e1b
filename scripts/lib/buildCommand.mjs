import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..');

/** Our own workspaces are bundled in; every package stays outside. */
export const packagesOutside = {
  name: 'packages-outside',
  setup({ onResolve }) {
    onResolve({ filter: /^[^./]/ }, ({ path: name, kind }) =>
      kind === 'entry-point' || name.startsWith('@nimble-bell/') ? undefined : { path: name, external: true },
    );
  },
};

/** Bundles the command line into cli/dist. */
export const buildCommand = () =>
  build({
    entryPoints: [path.join(root, 'cli/src/main.ts')],
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    outfile: path.join(root, 'cli/dist/main.mjs'),
    plugins: [packagesOutside],
    logLevel: 'warning',
  });
