import type { MyCourse } from '@nimble-bell/core/api';
import { calendarOf } from '@nimble-bell/core/calendar';
import { serverNow } from '../app/clock';

/** One session as a file for the reader's own calendar program. */
export function saveEntry(mine: MyCourse, session: MyCourse['sessions'][number]) {
  const { course } = mine;
  const title = `${course.code} ${session.seriesTitle}`;
  const url = window.location.href;
  const content = calendarOf(
    [
      {
        uid: `${session.seriesId}-${session.date}@nimble-bell`,
        sequence: 0,
        stamp: serverNow(),
        title,
        description: `Enter here: ${url}`,
        url,
        term: course.term,
        pattern: { kind: 'dates', every: 1, lingerMinutes: 0, ends: { by: 'term' }, dates: [session.date] },
        sessions: [session],
      },
    ],
    'PUBLISH',
  );
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([content], { type: 'text/calendar' }));
  link.download = `${title} ${session.number}.ics`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
