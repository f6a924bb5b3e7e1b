import {
  keepPreviousData,
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from '@tanstack/react-query';
import type { CourseDetail, Me } from '@nimble-bell/core/api';
import { useId, useRef } from 'react';
import { ApiError, useAsk } from './api';
import { setServerTime } from './clock';
import { keepUnsent, sent } from './line';
import { say } from './notices';

/** A thing the server keeps, by its path. */
export function useAsked<T>(
  path: string,
  options: {
    every?: number | ((known: T | undefined) => number) | undefined;
    enabled?: boolean;
    /** Shows what was asked before until the new answer is there. */
    keep?: boolean;
    /** What the page has of the answer; one function, so that it is worked out once an answer. */
    select?: (answer: T) => T;
  } = {},
): UseQueryResult<T> {
  const ask = useAsk();
  return useQuery({
    queryKey: [path],
    queryFn: () => ask<T>(path),
    refetchInterval: ({ state }) =>
      (typeof options.every === 'function' ? options.every(state.data) : options.every) ?? false,
    enabled: options.enabled ?? true,
    ...(options.select ? { select: options.select } : {}),
    ...(options.keep ? { placeholderData: keepPreviousData } : {}),
  });
}

export function useMe() {
  const ask = useAsk();
  return useQuery({
    queryKey: ['/me'],
    queryFn: async () => {
      const me = await ask<Me>('/me');
      setServerTime(me.now);
      return me;
    },
  });
}

/** What a page cannot be shown for; a fault that passes is none for a page that stands: it is said above it. */
export const stopOf = ({ data, error }: Pick<UseQueryResult, 'data' | 'error'>): Error | null =>
  data !== undefined &&
  error instanceof ApiError &&
  (error.status === 0 || error.status === 401 || error.status >= 500)
    ? null
    : error;

export const useCourse = (id: string) => useAsked<CourseDetail>(`/courses/${id}`);

/** A change: afterwards everything shown is asked anew, and what was done is said in words. */
export function useChange<Input, Result>(
  change: (input: Input) => Promise<Result>,
  done?: (result: Result, input: Input) => string,
  /** Goes from where the change leaves nothing to be shown: before that is asked for and refused. */
  leave?: (result: Result) => void,
) {
  const client = useQueryClient();
  // Pressed twice it is asked once: what is on its way already is waited for.
  const onItsWay = useRef(new Map<string, Promise<Result>>());
  const id = useId();
  const mutation: UseMutationResult<Result, Error, Input> = useMutation({
    mutationFn: (input: Input) => {
      const key = JSON.stringify(input) ?? '';
      const known = onItsWay.current.get(key);
      if (known) return known;
      const asked = change(input).finally(() => onItsWay.current.delete(key));
      onItsWay.current.set(key, asked);
      return asked;
    },
    onSuccess: async (result, input) => {
      sent(id + JSON.stringify(input));
      leave?.(result);
      await client.invalidateQueries();
      if (done) say(done(result, input));
    },
    onError: async (error, input) => {
      // Not answered: it waits beside the fault until it is, and is no news of its own.
      if (error instanceof ApiError && error.status === 0)
        return keepUnsent(id + JSON.stringify(input), () => mutation.mutateAsync(input));
      sent(id + JSON.stringify(input));
      say(error.message, 'fault');
      // Something is otherwise than the page shows: it looks again.
      if (error instanceof ApiError && error.status === 409) await client.invalidateQueries();
    },
  });
  return mutation;
}
