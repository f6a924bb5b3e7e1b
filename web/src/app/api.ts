import { createContext, useCallback, useContext } from 'react';
import type { ErrorBody } from '@nimble-bell/core/api';

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

export async function request<T>(
  path: string,
  link: string | null,
  method = 'GET',
  /** A value, or what was made JSON already. */
  body?: unknown,
  /** Goes through even when the page is left. */
  keepalive = false,
): Promise<T> {
  const headers: Record<string, string> = {};
  if (link) headers.authorization = `Link ${link}`;
  if (body !== undefined) headers['content-type'] = 'application/json';
  let answer: Response;
  try {
    answer = await fetch(`/api${path}`, {
      method,
      headers,
      keepalive,
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
  } catch {
    throw new ApiError(
      0,
      'offline',
      'The server does not answer. What you typed is still here: try again in a moment.',
    );
  }
  const content = (await answer.json().catch(() => null)) as (T & Partial<ErrorBody>) | null;
  if (answer.ok && content !== null) return content;
  const { code = 'internal', message = 'Something went wrong.', fields } = content?.error ?? {};
  throw new ApiError(answer.status, code, message, fields);
}

export type Ask = <T>(path: string, method?: string, body?: unknown) => Promise<T>;

/** Requests as whoever this page belongs to. */
export function useAsk(): Ask {
  const link = useContext(LinkContext);
  return useCallback(
    <T>(path: string, method?: string, body?: unknown) => request<T>(path, link, method, body),
    [link],
  );
}
