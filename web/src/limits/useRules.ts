import type { RulesDetail, RulesInput } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';

/** What is set of what students may do, place by place. */
export function useRules() {
  const course = useThisCourse();
  return useAsked<RulesDetail>(`/courses/${course.id}/rules`);
}

/**
 * Sets limits, a sheet or a run sheet somewhere: in force at once, taken back by one press. What is written whole is set on
 * a state, and refused where that has moved on.
 */
export function useSetRules(words: string, on?: string) {
  const course = useThisCourse();
  const ask = useAsk();
  return useChange(
    (input: RulesInput) =>
      ask<{ change: string | null }>(`/courses/${course.id}/rules`, 'PUT', input, { on }),
    ({ change }) => (change ? words : 'It was so already.'),
  );
}

export function useUndoRules() {
  const course = useThisCourse();
  const ask = useAsk();
  return useChange(
    (change: string) => ask(`/courses/${course.id}/rules/undo`, 'POST', { change }),
    () => 'It is as it was before.',
  );
}
