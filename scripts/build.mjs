import { cp } from 'node:fs/promises';
import path from 'node:path';
import { build } from 'esbuild';
import { build as buildPages } from 'vite';
import { buildCommand, packagesOutside } from './lib/buildCommand.mjs';
import { cutFonts } from './lib/fonts.mjs';
import { buildOffline } from './lib/offline.mjs';
import { pack } from './lib/pack.mjs';

const root = path.resolve(new URL('..', import.meta.url).pathname);

const entry = (file) => path.join(root, 'server/src', file);
await build({
  entryPoints: {
    main: entry('main.ts'),
    mailbox: entry('standins/mailbox.ts'),
    makeUpWorker: entry('planning/makeUpWorker.ts'),
    standInClass: entry('rehearsal/classProcess.ts'),
  },
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
await buildCommand();
await cutFonts();
await buildPages({ root: path.join(root, 'web'), logLevel: 'warn' });
// What pages are drawn with has these beside it: letters, colours, and its own readers of pictures.
for (const folder of ['cmaps', 'standard_fonts', 'wasm', 'iccs'])
  await cp(path.join(root, 'node_modules/pdfjs-dist', folder), path.join(root, 'web/dist/pdf', folder), {
    recursive: true,
  });
// What finds people in a camera's picture, to draw something else behind them.
for (const file of [
  'selfie_segmentation.js',
  'selfie_segmentation.binarypb',
  'selfie_segmentation.tflite',
  'selfie_segmentation_landscape.tflite',
  'selfie_segmentation_solution_simd_wasm_bin.js',
  'selfie_segmentation_solution_simd_wasm_bin.wasm',
])
  await cp(
    path.join(root, 'node_modules/@mediapipe/selfie_segmentation', file),
    path.join(root, 'web/dist/background', file),
  );
await buildOffline(path.join(root, 'web'));
await pack(path.join(root, 'web/dist'));
