import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { PlanEditDraft, PlanOutcome } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';

/** What an edit would do, by the server: nothing is written. Null asks nothing. */
export function usePreview(course: string, edit: PlanEditDraft | null) {
  const ask = useAsk();
  const text = edit ? JSON.stringify(edit) : null;
  const [settled] = useDebouncedValue(text, 250);
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
