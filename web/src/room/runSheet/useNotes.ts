import type { RulesDetail } from '@nimble-bell/core/api';
import { useAsked } from '../../app/queries';
import { useInfo } from '../live/useRoom';

/** What teachers noted on the parts of this session's run sheet, by title: it is asked for by them, and in no room. */
export function useNotes(): ReadonlyMap<string, string> {
  const { course, session } = useInfo();
  const { data } = useAsked<RulesDetail>(`/courses/${course.id}/rules`);
  const segments =
    data?.sessions.find((s) => s.id === session.id)?.segments ??
    data?.series.find((s) => s.id === session.seriesId)?.segments ??
    data?.course.segments ??
    [];
  return new Map(segments.filter((s) => s.note).map((s) => [s.title, s.note]));
}
