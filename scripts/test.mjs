import { spawn } from 'node:child_process';
import { appendFileSync, mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import {
  checkNode,
  ensureBuilt,
  ensureModules,
  ensurePackages,
  ROOT,
  TEST_PACKAGES,
} from './lib/install.mjs';
import { orSay } from './lib/say.mjs';

/** npm test: install what is missing, types, lint, format, unit tests, build, browser tests; ends with plain counts. */
/** By its path: another of the modules has a program of that name. */
const TSC = 'node_modules/typescript7/bin/tsc';
const counts = { passed: 0, failed: 0 };
const SAID = path.join(ROOT, '.tmp/said');

async function check(name, command, args, read) {
  const began = Date.now();
  // What it says is kept as it says it: how long each test took is read there, while the rest still runs.
  const { status, said } = await runs(command, args, path.join(SAID, `${name.replaceAll(' ', '-')}.txt`));
  const seconds = ((Date.now() - began) / 1000).toFixed(1);
  const found = read?.(said) ?? { passed: status === 0 ? 1 : 0, failed: status === 0 ? 0 : 1 };
  // A check that did not run, or counted nothing, has not passed.
  if (found.failed === 0 && (status !== 0 || found.passed === 0)) found.failed = 1;
  const fine = status === 0 && found.failed === 0;
  counts.passed += found.passed;
  counts.failed += found.failed;
  process.stdout.write(
    `${fine ? 'ok    ' : 'FAILED'} ${name}: ${found.passed} passed, ${found.failed} failed${found.flaky ? `, ${found.flaky} only at a second try` : ''} (${seconds} s)\n`,
  );
  if (!fine) process.stdout.write(`${said}\n`);
}

/** Runs a command to its end, and keeps what it says in a file. Gives its status and what it said. */
function runs(command, args, kept) {
  writeFileSync(kept, '');
  const child = spawn(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, FORCE_COLOR: '0' },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) {
    stream.setEncoding('utf8');
    stream.on('data', (text) => {
      said += text;
      appendFileSync(kept, text);
    });
  }
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('close', (status) => resolve({ status, said }));
  });
}

const number = (text, pattern) => Number(pattern.exec(text)?.[1] ?? 0);
const jestCounts = (said) => {
  const line = /^Tests:.*$/m.exec(said)?.[0] ?? '';
  return { passed: number(line, /(\d+) passed/), failed: number(line, /(\d+) failed/) };
};
const browserCounts = (said) => ({
  passed: number(said, /^\s+(\d+) passed/m) + number(said, /^\s+(\d+) flaky/m),
  flaky: number(said, /^\s+(\d+) flaky/m),
  failed: number(said, /^\s+(\d+) failed/m),
});

async function test() {
  checkNode();
  mkdirSync(SAID, { recursive: true });
  ensurePackages(TEST_PACKAGES);
  ensureModules();
  const bin = (name) => `node_modules/.bin/${name}`;
  const types = async () => {
    for (const part of ['core', 'cli', 'server', 'web', 'e2e'])
      await check(`types of ${part}`, TSC, ['-p', part]);
    // The lint takes as long again: the product is built beside it. What cannot be built fails later, in words.
    await ensureBuilt().catch(() => {});
  };
  await Promise.all([
    types(),
    check('lint', bin('eslint'), ['.', '--max-warnings', '0']),
    check('format', bin('prettier'), ['--check', '.']),
  ]);
  // All have passed or failed by then: what one of them left open does not hold the rest up.
  // A machine that is busy with something else fails no test: what stands still is ended after half a minute.
  const unit = ['--ci', '--forceExit', '--maxWorkers=2', '--testTimeout=30000'];
  await check('unit tests', bin('jest'), unit, jestCounts);
  await ensureBuilt();
  await check(
    'browser tests',
    bin('playwright'),
    ['test', '-c', 'e2e', ...process.argv.slice(2)],
    browserCounts,
  );
  process.stdout.write(`\n${counts.passed} passed, ${counts.failed} failed\n`);
  process.exit(counts.failed ? 1 : 0);
}

orSay(test());
