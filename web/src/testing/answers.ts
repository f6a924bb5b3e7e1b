/** What the page asked of the server since the answers were given. */
export const asked: { path: string; method: string; body: unknown }[] = [];

/** Answers requests by method and path, or by path; what is sent is kept in `asked`. */
export function answerRequests(answers: Record<string, unknown>) {
  asked.length = 0;
  const fetch = async (path: string, init: RequestInit = {}) => {
    const method = init.method ?? 'GET';
    asked.push({ path, method, body: init.body ? JSON.parse(String(init.body)) : undefined });
    const found = answers[`${method} ${path}`] ?? answers[path];
    if (found !== undefined) return { ok: true, status: 200, json: async () => found };
    const error = { code: 'not-found', message: 'There is nothing at this address.' };
    return { ok: false, status: 404, json: async () => ({ error }) };
  };
  Object.assign(globalThis, { fetch });
}
