import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

jest.setTimeout(60_000);

const ROOT = path.resolve(__dirname, '../..');
const folder = mkdtempSync(path.join(tmpdir(), 'nimble-bell-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** The command itself, as the shell finds it. */
const command = (args: string[], input = '') =>
  spawnSync(path.join(ROOT, 'node_modules/.bin/nimble-bell'), args, {
    ...{ cwd: folder, input, encoding: 'utf8' as const },
    // Waited for without an end, one that hangs would hold all tests up.
    timeout: 60_000,
  });

const plan = {
  term: {
    name: 'Autumn',
    zone: 'Australia/Lord_Howe',
    firstDay: '2026-09-28',
    lastDay: '2026-10-11',
    daysOff: [],
    daySwaps: [],
  },
  series: [
    {
      id: 'watch',
      title: 'Night watch',
      teacher: 'maren',
      pattern: { kind: 'weekly', days: [{ day: 'sunday', start: '02:15', minutes: 60 }] },
    },
  ],
};

test('the command reads a file from any folder; a time that a half-hour change skips moves by the gap', () => {
  writeFileSync(path.join(folder, 'plan.json'), JSON.stringify(plan));
  const { status, stdout, stderr } = command(['plan', 'plan.json']);
  expect([status, stderr]).toEqual([0, '']);
  expect(JSON.parse(stdout).sessions).toMatchObject([
    { date: '2026-10-04', start: '02:45', end: '03:45', startsAt: '2026-10-03T15:45:00Z', week: 1 },
    { date: '2026-10-11', start: '02:15', end: '03:15', startsAt: '2026-10-10T15:15:00Z', week: 2 },
  ]);
});

test('it reads standard input, and ends with code 2 and the fault on standard error alone', () => {
  const ok = command(['plan', '-', '--format', 'csv'], JSON.stringify(plan));
  expect(ok.status).toBe(0);
  expect(ok.stdout.split('\r\n')).toHaveLength(4);
  const bad = command(['plan', '-'], JSON.stringify({ ...plan, term: { ...plan.term, zone: 'Lord Howe' } }));
  expect([bad.status, bad.stdout]).toEqual([2, '']);
  expect(bad.stderr).toBe('$.term.zone: This time zone is not known. Use a name such as America/Halifax.\n');
  expect(command([]).status).toBe(2);
});
