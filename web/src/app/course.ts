import { createContext, useContext } from 'react';
import type { CourseDetail } from '@nimble-bell/core/api';
import type { PlannedSession, SkippedDate } from '@nimble-bell/core/calendar';

/** What is being planned and not saved yet: drawn on the ribbon. */
export interface Draft {
  sessions: readonly Pick<PlannedSession, 'date' | 'startsAt'>[];
  skipped: readonly SkippedDate[];
}

export const CourseContext = createContext<CourseDetail | null>(null);
/** Tells the ribbon what is being planned. Who tells it is not drawn anew by what is told. */
export const DraftContext = createContext<(draft: Draft | null) => void>(() => {});

/** The course whose pages these are. */
export function useThisCourse(): CourseDetail {
  const course = useContext(CourseContext);
  if (!course) throw new Error('This belongs inside the planning frame.');
  return course;
}
