import { readdir, readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const brotli = promisify(brotliCompress);
const zip = promisify(gzip);

const TEXT = /\.(m?js|css|html|svg|json|webmanifest|txt)$/;
/** Smaller than this nothing is won. */
const WORTH = 600;

/** Writes beside every text file of the pages what goes over the wire in its place: `.br` and `.gz`. */
export async function pack(folder) {
  const files = (await readdir(folder, { recursive: true })).filter((f) => TEXT.test(f));
  await Promise.all(
    files.map(async (name) => {
      const file = path.join(folder, name);
      const whole = await readFile(file);
      if (whole.length < WORTH) return;
      const params = { [constants.BROTLI_PARAM_SIZE_HINT]: whole.length };
      await Promise.all([
        brotli(whole, { params }).then((small) => writeFile(`${file}.br`, small)),
        zip(whole, { level: 9 }).then((small) => writeFile(`${file}.gz`, small)),
      ]);
    }),
  );
}
