/** Progress, a line a step; and an end with a sentence instead of a stack. */
export const step = (text) => process.stdout.write(`  ${text}\n`);

export class Fault extends Error {}

export function orSay(work) {
  work.catch((error) => {
    process.stderr.write(error instanceof Fault ? `\n  ${error.message}\n` : `\n  ${error.stack}\n`);
    process.exit(1);
  });
}
