import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Fault, step } from './say.mjs';

export const ROOT = path.resolve(import.meta.dirname ?? new URL('.', import.meta.url).pathname, '../..');

/** Debian's packages, each with a program that shows it is there. */
const PROGRAMS = {
  'mariadb-server': ['mariadbd', 'mariadb-install-db'],
  janus: ['janus'],
  'janus-tools': ['janus-pp-rec'],
  ffmpeg: ['ffmpeg'],
  'espeak-ng': ['espeak-ng'],
  qpdf: ['qpdf'],
  'poppler-utils': ['pdftotext'],
  'chromium-headless-shell': ['chromium-headless-shell'],
  pocketsphinx: ['pocketsphinx_continuous'],
};
/** Not on every machine: for tests, and for whoever wishes a program that listens. */
const TEST_BROWSER = 'chromium-headless-shell';
const APART = [TEST_BROWSER, 'pocketsphinx'];
export const PRODUCT_PACKAGES = Object.keys(PROGRAMS).filter((name) => !APART.includes(name));
export const TEST_PACKAGES = [...PRODUCT_PACKAGES, TEST_BROWSER];

const FOLDERS = [...(process.env.PATH ?? '').split(':'), '/usr/sbin', '/usr/bin'];
export const findProgram = (name) => FOLDERS.map((f) => path.join(f, name)).find((f) => existsSync(f));

function must(command, args, what, options = {}) {
  const result = spawnSync(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    encoding: 'utf8',
    maxBuffer: 1 << 26,
    ...options,
  });
  if (result.status === 0) return result.stdout;
  const tail = `${result.stdout ?? ''}${result.stderr ?? ''}`.trim().split('\n').slice(-25).join('\n');
  throw new Fault(`${what} did not work (${command} ${args.join(' ')}).\n${result.error?.message ?? tail}`);
}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new Fault(`Node.js 20.19 or newer is needed; this is ${process.versions.node}.`);
}

/** Installs Debian's packages that are missing; not as root, it says the one line to run. */
export function ensurePackages(names) {
  const missing = names.filter((name) => PROGRAMS[name].some((program) => !findProgram(program)));
  if (missing.length === 0) return;
  if (process.getuid?.() !== 0)
    throw new Fault(
      `Some Debian packages are missing. Run this line, then start again:\n\n  sudo apt-get install --no-install-recommends ${missing.join(' ')}\n`,
    );
  if (!findProgram('apt-get'))
    throw new Fault(`These programs are missing and there is no apt-get here: ${missing.join(', ')}.`);
  step(`installing ${missing.join(', ')}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  must('apt-get', ['update', '-q'], 'Reading the package lists', { env });
  must(
    'apt-get',
    ['install', '-y', '-q', '--no-install-recommends', ...missing.flatMap(withModel)],
    'Installing packages',
    {
      env,
    },
  );
}

/** A program that listens is nothing without what it knows of a language. */
const withModel = (name) => (name === 'pocketsphinx' ? [name, 'pocketsphinx-en-us'] : [name]);

const hashOf = (text) => createHash('sha256').update(text).digest('hex');

/** `npm ci`, unless what is installed is what the lock file names. */
export function ensureModules() {
  const stamp = path.join(ROOT, 'node_modules/.nimble-bell-lock');
  const lock = hashOf(readFileSync(path.join(ROOT, 'package-lock.json')));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  step('installing modules (npm ci)');
  must('npm', ['ci', '--no-audit', '--no-fund'], 'Installing modules');
  writeFileSync(stamp, lock);
}

function* filesIn(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const file = path.join(folder, entry.name);
    if (entry.isDirectory()) {
      if (entry.name !== 'node_modules' && entry.name !== 'dist') yield* filesIn(file);
    } else yield file;
  }
}

/** Builds server and pages, unless nothing has changed since. */
export async function ensureBuilt() {
  const stamp = path.join(ROOT, 'server/dist/.stamp');
  const folders = ['core', 'server', 'web'].map((f) => path.join(ROOT, f));
  const state = folders
    .flatMap((f) => [...filesIn(f)])
    .map((f) => `${f} ${statSync(f).size} ${statSync(f).mtimeMs}`);
  const now = hashOf(state.join('\n') + readFileSync(path.join(ROOT, 'package-lock.json')));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  step('building');
  must(process.execPath, ['scripts/build.mjs'], 'The build');
  mkdirSync(path.dirname(stamp), { recursive: true });
  writeFileSync(stamp, now);
}

/** Everything that a script needs which works the built product with a browser. */
export async function ensureTestable() {
  checkNode();
  ensurePackages(TEST_PACKAGES);
  ensureModules();
  await ensureBuilt();
}
