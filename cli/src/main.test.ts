import { answer } from './main';

const plan = {
  term: { name: 'Autumn', zone: 'America/Halifax', firstDay: '2026-08-31', lastDay: '2026-09-13' },
  series: [
    {
      id: 'b',
      title: 'Lab',
      people: ['ana'],
      pattern: { kind: 'weekly', days: [{ day: 'tuesday', start: '18:30', minutes: 80 }] },
    },
    {
      id: 'a',
      title: 'Talk',
      people: ['ana'],
      pattern: { kind: 'dates', dates: ['2026-09-01'], start: '19:00', minutes: 30 },
    },
  ],
};
const run = (args: string[], text: unknown = plan) =>
  answer(
    args,
    async (file) => {
      if (file === 'gone.json') throw Object.assign(new Error('no'), { code: 'ENOENT' });
      return typeof text === 'string' ? text : JSON.stringify(text);
    },
    Date.UTC(2026, 7, 1),
  );

test('a plan in, its sessions out; the clashes where they are asked for', async () => {
  const plain = await run(['plan', 'p.json']);
  expect(plain).toMatchObject({ code: 0, err: '' });
  const { sessions, clashes } = JSON.parse(plain.out);
  expect(sessions.map((s: { series: string }) => s.series)).toEqual(['b', 'a', 'b']);
  expect(clashes).toBeUndefined();
  expect(JSON.parse((await run(['plan', 'p.json', '--clashes'])).out).clashes).toHaveLength(1);
});

test('as a table or a calendar, the clashes go where they are in nobody’s way', async () => {
  const csv = await run(['plan', 'p.json', '--format', 'csv', '--clashes']);
  expect(csv.out.split('\r\n')[1]).toBe(
    'b,1,2026-09-01,18:30,19:50,America/Halifax,2026-09-01T21:30:00Z,2026-09-01T22:50:00Z,1',
  );
  expect(csv.err).toBe('b 2026-09-01T21:30:00Z and a 2026-09-01T22:00:00Z: 30 minutes, ana\n');
  expect((await run(['plan', '-', '--format=ics'])).out).toContain('RRULE:FREQ=WEEKLY');
});

test.each([
  [[], 'nimble-bell plan FILE.json'],
  [['draw', 'p.json'], 'nimble-bell plan FILE.json'],
  [['plan', 'p.json', 'q.json'], 'nimble-bell plan FILE.json'],
  [['plan', 'p.json', '--format', 'xml'], 'json, csv or ics, not "xml"'],
  [['plan', 'p.json', '--colour'], '--colour'],
  [['plan', 'gone.json'], 'gone.json: There is no such file.'],
])('%j ends with code 2 and a word on it', async (args, part) => {
  const { code, out, err } = await run(args);
  expect([code, out]).toEqual([2, '']);
  expect(err).toContain(part);
});

test('a file that does not fit gives a line a fault, and help is no fault', async () => {
  const broken = {
    ...plan,
    series: [{ ...plan.series[0], title: '', pattern: { kind: 'weekly', days: [] } }],
  };
  expect((await run(['plan', 'p.json'], broken)).err.trim().split('\n')).toEqual([
    '$.series[0].title: Give the series a name.',
    '$.series[0].pattern.days: Choose at least one weekday.',
  ]);
  expect((await run(['plan', 'p.json'], '{')).code).toBe(2);
  expect(await run(['--help'])).toMatchObject({ code: 0, err: '' });
});
