import type { RulesDetail } from '@nimble-bell/core/api';
import { useAsked } from '../app/queries';

/** The titles of the parts that a course's run sheets have, each once. */
export function usePartTitles(course: string): string[] {
  const { data } = useAsked<RulesDetail>(`/courses/${course}/rules`);
  if (!data) return [];
  const places = [data.course, ...data.series, ...data.sessions];
  return [...new Set(places.flatMap((p) => p.segments ?? []).map((s) => s.title))];
}
