import { createHash } from 'node:crypto';
import { readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { build } from 'esbuild';

/** The pages that stand without a line. */
const OFFLINE = ['index.html', 'src/student/StudentPage.tsx', 'src/app/StartPage.tsx'];

/** Everything that these pages are made of, by the pages' manifest: code, styles, and the first fonts. */
function filesOf(manifest) {
  const files = new Set();
  const take = (key) => {
    const part = manifest[key];
    if (!part || files.has(part.file)) return;
    files.add(part.file);
    for (const file of part.css ?? []) files.add(file);
    for (const file of part.assets ?? []) if (file.includes('-first-')) files.add(file);
    for (const next of part.imports ?? []) take(next);
  };
  OFFLINE.forEach(take);
  return [...files].map((file) => `/${file}`).sort();
}

/** Builds the service worker over a build of the pages. */
export async function buildOffline(web) {
  const list = path.join(web, 'dist/.vite/manifest.json');
  const files = filesOf(JSON.parse(await readFile(list, 'utf8')));
  const page = await readFile(path.join(web, 'dist/index.html'), 'utf8');
  const id = createHash('sha256').update(page).digest('hex').slice(0, 12);
  await build({
    entryPoints: [path.join(web, 'src/offline/worker.ts')],
    outfile: path.join(web, 'dist/worker.js'),
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    define: { BUILD: JSON.stringify({ id, files }) },
    logLevel: 'warning',
  });
  await rm(path.join(web, 'dist/.vite'), { recursive: true });
}
