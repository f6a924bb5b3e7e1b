import { chmod, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { removeBeginning, runFar, runProgram } from './files';

let folder = '';
const { PATH } = process.env;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'files-'));
  process.env.PATH = `${folder}:${PATH}`;
});
afterAll(async () => {
  process.env.PATH = PATH;
  await rm(folder, { recursive: true });
});

/** Stands in the place of a program: counts its calls in a file, then does as it is told. */
async function program(name: string, does: string): Promise<() => Promise<number>> {
  const calls = path.join(folder, `${name}.calls`);
  await writeFile(calls, '');
  await writeFile(path.join(folder, name), `#!/bin/sh\necho call >> ${calls}\n${does}\n`);
  await chmod(path.join(folder, name), 0o755);
  return async () => (await readFile(calls, 'utf8')).split('\n').length - 1;
}

test('the relay’s program is begun once more where it stands still, and no oftener', async () => {
  const once = path.join(folder, 'stood');
  const calls = await program(
    'janus-pp-rec',
    `[ -e ${once} ] || { touch ${once}; exec sleep 30; }\necho done`,
  );
  const { stdout } = await runProgram('janus-pp-rec', [], { stillMs: 400, patient: true });
  expect([stdout, await calls()]).toEqual(['done\n', 2]);
  const always = await program('janus-pp-rec', 'exec sleep 30');
  await expect(runProgram('janus-pp-rec', [], { stillMs: 200 })).rejects.toThrow();
  expect(await always()).toBe(2);
});

test('one that fails says so at once', async () => {
  const calls = await program('janus-pp-rec', 'echo no >&2; exit 3');
  await expect(runProgram('janus-pp-rec', [])).rejects.toThrow(/Command failed/);
  expect(await calls()).toBe(1);
});

test('how far it has come is said; one that is not wanted any more ends; one that fails says why', async () => {
  await program('ffmpeg', 'echo out_time_us=1500000; sleep 0.2; echo progress=end');
  const far: number[] = [];
  const { signal } = new AbortController();
  await runFar([], { far: (ms) => far.push(ms), signal });
  expect(far).toEqual([1500]);
  await program('ffmpeg', 'exec sleep 30');
  const leaving = new AbortController();
  const running = runFar([], { far: () => {}, signal: leaving.signal });
  setTimeout(() => leaving.abort(), 100);
  await expect(running).rejects.toThrow(/abort/i);
  await program('ffmpeg', 'echo "no such codec" >&2; exit 1');
  await expect(runFar([], { far: () => {}, signal })).rejects.toThrow(/no such codec/);
});

test('everything that begins so goes, and nothing else', async () => {
  const own = await mkdtemp(path.join(folder, 'own-'));
  for (const name of ['abc.webm', 'abc.en.vtt', 'abd.webm']) await writeFile(path.join(own, name), '');
  await removeBeginning(own, 'abc');
  expect(await readdir(own)).toEqual(['abd.webm']);
  await expect(removeBeginning(path.join(own, 'nowhere'), 'abc')).resolves.toBeUndefined();
});
