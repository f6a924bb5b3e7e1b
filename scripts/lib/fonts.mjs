import { existsSync } from 'node:fs';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { ROOT } from './install.mjs';

const require = createRequire(import.meta.url);

/** What pages here are written with; everything else comes from the families' other files when a page has it. */
const FIRST = `${Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)).join('')}–—‘’“”…·×→←↑↓−\u00a0`;

/** Our two families, each with the weights that pages use of it. */
const FAMILIES = [
  { name: 'atkinson-hyperlegible-next', family: 'Atkinson Hyperlegible Next Variable', weights: [400, 700] },
  { name: 'bricolage-grotesque', family: 'Bricolage Grotesque Variable', weights: [650, 650] },
];

const rangeOf = (text) => [...text].map((c) => `U+${c.codePointAt(0).toString(16).toUpperCase()}`).join(',');

/**
 * Writes `.tmp/fonts`: a small first file of each family with the letters of every page, to be loaded at once, and a
 * stylesheet that names it before the families' own. Where ranges overlap the face that is named last is used.
 */
export async function cutFonts() {
  const folder = path.join(ROOT, '.tmp/fonts');
  const { default: subsetFont } = await import('subset-font');
  await mkdir(folder, { recursive: true });
  const faces = [];
  for (const { name, family, weights } of FAMILIES) {
    const own = path.dirname(require.resolve(`@fontsource-variable/${name}/package.json`));
    const file = path.join(folder, `${name}-first.woff2`);
    const [min, max] = weights;
    if (!existsSync(file)) {
      const whole = await readFile(path.join(own, `files/${name}-latin-wght-normal.woff2`));
      const first = await subsetFont(whole, FIRST, {
        targetFormat: 'woff2',
        variationAxes: { wght: min === max ? min : { min, max, default: min } },
      });
      await writeFile(file, first);
    }
    const others = await readFile(path.join(own, 'wght.css'), 'utf8');
    // Faces of one family stand in for each other, letter by letter, only where they are said to have the same weights.
    const weightsSaid = `font-weight: ${min === max ? '600 700' : `${min} ${max}`}`;
    faces.push(
      others
        .replaceAll('./files/', `${path.relative(folder, own)}/files/`)
        .replaceAll(/font-weight: \d+ \d+/g, weightsSaid),
    );
    faces.push(
      `@font-face {\n  font-family: '${family}';\n  font-style: normal;\n  font-display: swap;\n  ${weightsSaid};\n` +
        `  src: url('./${name}-first.woff2') format('woff2-variations');\n  unicode-range: ${rangeOf(FIRST)};\n}\n`,
    );
  }
  await writeFile(path.join(folder, 'fonts.css'), faces.join('\n'));
}
