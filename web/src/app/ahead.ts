/** Answers that were asked for before there was a page to show them, by path. Each is taken once. */
const ahead = new Map<string, { answer: Promise<Response>; at: number }>();

/** An answer that has waited longer than this is old: it is asked anew. */
const FRESH_MS = 5000;

function ask(path: string, link?: string) {
  const headers: Record<string, string> = link ? { authorization: `Link ${link}` } : {};
  const answer = fetch(path, { headers });
  // Whoever takes it hears of the fault.
  answer.catch(() => {});
  ahead.set(`${path} ${link ?? ''}`, { answer, at: performance.now() });
}

/** Asks for what the page at an address shows first, while its code is on its way. */
export function askAhead(address: string) {
  const link = /^\/in\/([^/]+)/.exec(address)?.[1];
  const course = /^\/course\/([^/]+)/.exec(address)?.[1];
  ask('/api/me', link);
  if (link && /^\/in\/[^/]+\/?$/.test(address)) ask('/api/my-course', link);
  const recording = /\/watch\/([^/]+)\/?$/.exec(address)?.[1];
  if (recording && (link || course)) ask(`/api/recordings/${recording}`, link);
  if (course) ask(`/api/courses/${course}`);
  if (/^\/courses\/?$/.test(address)) ask('/api/courses');
}

/** What was asked ahead for this, once. */
export function taken(path: string, link: string | null): Promise<Response> | null {
  const key = `${path} ${link ?? ''}`;
  const found = ahead.get(key);
  ahead.delete(key);
  return found && performance.now() - found.at < FRESH_MS ? found.answer : null;
}
