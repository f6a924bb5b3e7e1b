import { createContext, useCallback, useContext } from 'react';
import type { ErrorBody } from '@nimble-bell/core/api';
import { taken } from './ahead';
import { heard, strange, unheard } from './line';

/** A refusal of the server, in words for the person. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly fields: { path: string; message: string }[] = [],
  ) {
    super(message);
  }
}

/** The personal link that a student's pages speak with; none on a teacher's. */
export const LinkContext = createContext<string | null>(null);

interface Sending {
  /** Goes through even when the page is left. */
  keepalive?: boolean;
  /** The state that a change was made on, as its preview said: where it is no more, the server refuses. */
  on?: string | undefined;
}

const AGAIN_MS = [300, 900];

/** The server's answer; asked again for a moment where there is none. That there is none is said at once. */
async function fetched(path: string, what: RequestInit): Promise<Response> {
  for (let attempt = 0; ; attempt++) {
    try {
      return await fetch(path, what);
    } catch {
      unheard();
      if (attempt >= AGAIN_MS.length || what.keepalive)
        throw new ApiError(
          0,
          'offline',
          'The server does not answer. What you typed is still here: try again in a moment.',
        );
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS[attempt]));
    }
  }
}

/** Keys of requests that were sent and not answered, by what they ask: sent again they are the same, and happen once. */
const unanswered = new Map<string, string>();

/** When what answers was kept on this device, ms; null where the server itself answered. */
const keptAt = (answer: Response): number | null => {
  const said = answer.headers?.get('x-kept-at');
  return said ? Number(said) : null;
};

export async function request<T>(
  path: string,
  link: string | null,
  method = 'GET',
  /** A value, or what was made JSON already. */
  body?: unknown,
  { keepalive = false, on }: Sending = {},
): Promise<T> {
  const headers: Record<string, string> = {};
  if (link) headers.authorization = `Link ${link}`;
  if (body !== undefined) headers['content-type'] = 'application/json';
  const sent = body === undefined ? '' : typeof body === 'string' ? body : JSON.stringify(body);
  const what = `${method} ${path} ${sent}`;
  if (method !== 'GET') {
    const key = unanswered.get(what) ?? crypto.randomUUID();
    unanswered.set(what, key);
    headers['idempotency-key'] = key;
  }
  if (on !== undefined) headers['if-match'] = `"${on}"`;
  const asked = method === 'GET' ? taken(`/api${path}`, link)?.catch(() => null) : null;
  const answer =
    (await asked) ??
    (await fetched(`/api${path}`, {
      method,
      headers,
      keepalive,
      ...(body === undefined ? {} : { body: sent }),
    }));
  unanswered.delete(what);
  heard(keptAt(answer));
  const content = (await answer.json().catch(() => null)) as (T & Partial<ErrorBody>) | null;
  if (answer.ok && content !== null) return content;
  const { code = 'internal', message = 'Something went wrong.', fields } = content?.error ?? {};
  if (code === 'not-signed-in' && link === null) strange();
  throw new ApiError(answer.status, code, message, fields);
}

export type Ask = <T>(path: string, method?: string, body?: unknown, sending?: Sending) => Promise<T>;

/** Requests as whoever this page belongs to. */
export function useAsk(): Ask {
  const link = useContext(LinkContext);
  return useCallback(
    <T>(path: string, method?: string, body?: unknown, sending?: Sending) =>
      request<T>(path, link, method, body, sending),
    [link],
  );
}
