/** A line is read in one look, in characters. */
const LONG = 74;

/**
 * What is a whole line of what was typed so far: each sentence that is followed by a space, and what is longer than a line,
 * cut between two words. The rest is still being written.
 */
export function cutFrom(typed: string): { lines: string[]; rest: string } {
  const lines: string[] = [];
  let rest = typed;
  for (;;) {
    const sentence = /^.*?[.!?…。！？]["”’)]*\s+/u.exec(rest)?.[0];
    const long = rest.length > LONG ? rest.lastIndexOf(' ', LONG) : -1;
    const end = sentence && (long < 0 || sentence.length <= long) ? sentence.length : long > 0 ? long + 1 : 0;
    if (!end) return { lines, rest };
    lines.push(rest.slice(0, end).trim());
    rest = rest.slice(end);
  }
}
