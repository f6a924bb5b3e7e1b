import { createContext, useContext } from 'react';
import type { CourseDetail } from '@nimble-bell/core/api';
import { sameDates, sameSkips, type PlannedSession, type SkippedDate } from '@nimble-bell/core/calendar';
import { told } from './told';

interface Draft {
  sessions: readonly Pick<PlannedSession, 'date'>[];
  skipped: readonly SkippedDate[];
}

/** What is being planned and not saved yet: the ribbon draws it, and nothing else is drawn anew by it. */
export const draft = told<Draft | null>(null, (a, b) =>
  a && b ? sameDates(a.sessions, b.sessions) && sameSkips(a.skipped, b.skipped) : a === b,
);

export const CourseContext = createContext<CourseDetail | null>(null);

/** The course whose pages these are. */
export function useThisCourse(): CourseDetail {
  const course = useContext(CourseContext);
  if (!course) throw new Error('This belongs inside the planning frame.');
  return course;
}
