import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { planCsv, planIcs, planOut, readPlanFile } from '@nimble-bell/core/planFile';

const USAGE = `Reads a plan and prints its sessions.

  nimble-bell plan FILE.json [--format json|csv|ics] [--clashes]

FILE.json may be - for standard input. --clashes adds the sessions that people cannot both be at: to the JSON, or with
another format as lines on standard error. A plan that does not fit ends with code 2 and a line for each fault.
`;

export interface Output {
  out: string;
  err: string;
  code: number;
}

const refusal = (message: string): Output => ({ out: '', err: `${message}\n`, code: 2 });
const FORMATS = ['json', 'csv', 'ics'];

/** What the command answers to its arguments; `readText` reads a file, or standard input for "-". */
export async function answer(
  args: string[],
  readText: (file: string) => Promise<string>,
  now: number,
): Promise<Output> {
  let parsed;
  try {
    parsed = parseArgs({
      args,
      allowPositionals: true,
      options: {
        format: { type: 'string', default: 'json' },
        clashes: { type: 'boolean', default: false },
        help: { type: 'boolean', short: 'h', default: false },
      },
    });
  } catch (error) {
    return refusal(`${(error as Error).message}\n\n${USAGE}`);
  }
  const { values, positionals } = parsed;
  if (values.help) return { out: USAGE, err: '', code: 0 };
  const [command, file, ...more] = positionals;
  if (command !== 'plan' || !file || more.length) return refusal(USAGE);
  if (!FORMATS.includes(values.format))
    return refusal(`--format is json, csv or ics, not "${values.format}".`);
  let text: string;
  try {
    text = await readText(file);
  } catch (error) {
    const { code } = error as { code?: string };
    return refusal(`${file}: ${code === 'ENOENT' ? 'There is no such file.' : (error as Error).message}`);
  }
  const read = readPlanFile(text);
  if ('faults' in read) return refusal(read.faults.join('\n'));
  if (values.format === 'json')
    return { out: `${JSON.stringify(planOut(read.plan, values.clashes), null, 2)}\n`, err: '', code: 0 };
  const out = values.format === 'csv' ? planCsv(read.plan) : planIcs(read.plan, now);
  const clashes = values.clashes ? planOut(read.plan, true).clashes! : [];
  const lines = clashes.map(
    ({ a, b, minutes, people }) =>
      `${a.series} ${a.startsAt} and ${b.series} ${b.startsAt}: ${minutes} minutes, ${people.join(', ')}\n`,
  );
  return { out, err: lines.join(''), code: 0 };
}

async function textOf(file: string): Promise<string> {
  if (file !== '-') return readFile(file, 'utf8');
  const parts: Buffer[] = [];
  for await (const part of process.stdin) parts.push(part as Buffer);
  return Buffer.concat(parts).toString('utf8');
}

/** Answers the process's own arguments. */
export async function main(): Promise<void> {
  const { out, err, code } = await answer(process.argv.slice(2), textOf, Date.now());
  process.stderr.write(err);
  process.exitCode = code;
  await new Promise<void>((done) => process.stdout.write(out, () => done()));
}
