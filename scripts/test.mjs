import { spawnSync } from 'node:child_process';
import {
  checkNode,
  ensureBuilt,
  ensureModules,
  ensurePackages,
  PRODUCT_PACKAGES,
  ROOT,
} from './lib/install.mjs';
import { orSay } from './lib/say.mjs';

/** npm test: install what is missing, types, lint, format, unit tests, build, browser tests; ends with plain counts. */
const counts = { passed: 0, failed: 0 };

function check(name, command, args, read) {
  const began = Date.now();
  const result = spawnSync(command, args, {
    cwd: ROOT,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
    env: { ...process.env, FORCE_COLOR: '0' },
  });
  const seconds = ((Date.now() - began) / 1000).toFixed(1);
  const said = `${result.stdout}${result.stderr}`;
  const found = read?.(said) ?? { passed: result.status === 0 ? 1 : 0, failed: result.status === 0 ? 0 : 1 };
  if (result.status !== 0 && found.failed === 0) found.failed = 1;
  counts.passed += found.passed;
  counts.failed += found.failed;
  process.stdout.write(
    `${result.status === 0 ? 'ok    ' : 'FAILED'} ${name}: ${found.passed} passed, ${found.failed} failed${found.flaky ? `, ${found.flaky} only at a second try` : ''} (${seconds} s)\n`,
  );
  if (result.status !== 0) process.stdout.write(`${said}\n`);
  return result.status === 0;
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
  ensurePackages([...PRODUCT_PACKAGES, 'chromium']);
  ensureModules();
  const bin = (name) => `node_modules/.bin/${name}`;
  for (const part of ['core', 'cli', 'server', 'web', 'e2e'])
    check(`types of ${part}`, bin('tsc'), ['-p', part]);
  check('lint', bin('eslint'), ['.', '--max-warnings', '0']);
  check('format', bin('prettier'), ['--check', '.']);
  check('unit tests', bin('jest'), ['--ci'], jestCounts);
  await ensureBuilt();
  check('browser tests', bin('playwright'), ['test', '-c', 'e2e', ...process.argv.slice(2)], browserCounts);
  process.stdout.write(`\n${counts.passed} passed, ${counts.failed} failed\n`);
  process.exit(counts.failed ? 1 : 0);
}

orSay(test());
