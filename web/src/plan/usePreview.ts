import { useDebouncedValue } from '@mantine/hooks';
import { useMemo } from 'react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { PlanEditDraft, PlanOutcome } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';

/** What an edit would do, by the server: nothing is written. Null asks nothing. Asked where it stays so for `quietMs`. */
export function usePreview(course: string, edit: PlanEditDraft | null, quietMs = 250) {
  const ask = useAsk();
  const text = useMemo(() => (edit ? JSON.stringify(edit) : null), [edit]);
  const [settled] = useDebouncedValue(text, quietMs);
  const query = useQuery({
    queryKey: ['preview', course, settled],
    queryFn: () => ask<PlanOutcome>(`/courses/${course}/plan/preview`, 'POST', JSON.parse(settled!)),
    enabled: settled !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
  const asked = text !== null && settled !== null;
  return {
    outcome: asked && !query.error ? (query.data ?? null) : null,
    fault: asked ? query.error : null,
    /** Whether the answer belongs to what stands in the form now. */
    settled: text === settled && !query.isFetching,
  };
}
