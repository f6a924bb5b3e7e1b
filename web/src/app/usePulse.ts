import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { useAsked } from './queries';

const EVERY_MS = 5000;

/** What others do to a course, and what becomes of its letters, is seen without loading the page anew. */
export function usePulse(course: string) {
  const client = useQueryClient();
  const path = `/courses/${course}/pulse`;
  const { data } = useAsked<string>(path, { every: EVERY_MS });
  const last = useRef<string | undefined>(undefined);
  useEffect(() => {
    if (data === undefined) return;
    if (last.current !== undefined && last.current !== data)
      void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== path });
    last.current = data;
  }, [data, path, client]);
}
