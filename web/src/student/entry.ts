import type { MyCourse } from '@nimble-bell/core/api';
import { singlesOf } from '@nimble-bell/core/calendar';
import { serverNow } from '../app/clock';

type Session = MyCourse['sessions'][number];

/** One session as a calendar with one entry (RFC 5545). */
export function entryOf({ course }: MyCourse, session: Session, url: string, stamp: number): string {
  const { seriesId, seriesTitle, date, startsAt, endsAt } = session;
  const title = `${course.code} ${seriesTitle}${session.title ? `: ${session.title}` : ''}`;
  const uid = `${seriesId}-${date}@nimble-bell`;
  const description = `Enter here: ${url}`;
  return singlesOf([{ uid, title, startsAt, endsAt, url, description }], title, stamp);
}

/** The same as a file for the reader's own calendar program. */
export function saveEntry(mine: MyCourse, session: Session) {
  const content = entryOf(mine, session, window.location.href, serverNow());
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([content], { type: 'text/calendar' }));
  link.download = `${mine.course.code} ${session.seriesTitle} ${session.number}.ics`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
