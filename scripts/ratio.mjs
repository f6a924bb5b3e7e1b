import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { ROOT } from './lib/install.mjs';

/** npm run ratio: how much of the code is tests. Lines that hold something count; a quarter to a third is wanted. */
const files = execFileSync('git', ['ls-files', '*.ts', '*.tsx', '*.mjs', '*.sql', '*.css'], {
  cwd: ROOT,
  encoding: 'utf8',
})
  .split('\n')
  .filter(Boolean);
const lines = (file) =>
  readFileSync(`${ROOT}/${file}`, 'utf8')
    .split('\n')
    .filter((l) => l.trim()).length;
const isTest = (file) => /\.test\.tsx?$/.test(file) || file.startsWith('e2e/');
const sum = (list) => list.reduce((total, file) => total + lines(file), 0);
const parts = ['core', 'server', 'web', 'scripts', 'e2e'];
for (const part of parts) {
  const own = files.filter((f) => f.startsWith(`${part}/`));
  process.stdout.write(
    `${part.padEnd(8)} ${String(sum(own)).padStart(6)} lines, ${sum(own.filter(isTest))} of them tests\n`,
  );
}
const tests = sum(files.filter(isTest));
const all = sum(files);
process.stdout.write(`tests are ${((100 * tests) / all).toFixed(1)} % of ${all} lines\n`);
