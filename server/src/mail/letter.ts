import {
  countWords,
  dateWords,
  instantWords,
  patternWords,
  requestOf,
  zoneWords,
} from '@nimble-bell/core/calendar';
import type { MemberRow } from '../accounts/principal';
import type { Context } from '../context';
import { seriesOf, sessionsOfCourse, type CourseRow } from '../courses/store';
import { rows } from '../db/pool';
import { isFor } from '../roster/store';

export interface Letter {
  subject: string;
  text: string;
  html: string;
  /** One iTIP request a series (RFC 5546 asks for one UID a message). */
  calendars: string[];
}

interface Recipient extends MemberRow {
  link: string;
}

export const ORGANIZER = { email: 'classes@saltmarsh.example' };

/** The invitation of one person: their link, their series in their own time, a calendar entry a series. */
export async function invitationFor(ctx: Context, course: CourseRow, member: Recipient): Promise<Letter> {
  const [series, sessions, teachers] = await Promise.all([
    seriesOf(ctx.db, course.id),
    sessionsOfCourse(ctx.db, course.id),
    rows<{ name: string }>(
      ctx.db,
      "SELECT p.name FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ? AND m.role = 'teacher'",
      [course.id],
    ),
  ]);
  const url = `${ctx.config.origin}/in/${member.link}`;
  const teacher = teachers[0]?.name ?? course.code;
  const subject = `${course.code} ${course.title}: your way in`;
  const own = series.filter((s) => isFor(s, member));
  const live = sessions.filter((s) => s.state !== 'cancelled' && isFor(s, member));
  const next = live.find((s) => s.endsAt > ctx.now());
  const lines = own.map((s) => {
    const count = live.filter((x) => x.seriesId === s.id).length;
    return `${s.title}: ${patternWords(s.pattern)} (${zoneWords(course.term.zone)} time), ${countWords(count, 'session')}`;
  });
  const first = next
    ? `The next session begins ${instantWords(next.startsAt, member.zone)}, ${zoneWords(member.zone)} time.`
    : '';
  const until = `The link is yours alone and stays the same until ${dateWords(course.term.lastDay)}.`;
  const text = [
    `Dear ${member.name},`,
    `${teacher} invites you to ${course.code} ${course.title}.`,
    lines.join('\n'),
    first,
    `Enter here: ${url}`,
    until,
  ]
    .filter(Boolean)
    .join('\n\n');
  const calendars = own.map((s) =>
    requestOf({
      uid: `${s.id}@nimble-bell`,
      sequence: s.sequence,
      stamp: ctx.now(),
      title: `${course.code} ${s.title}`,
      description: `Enter here: ${url}`,
      url,
      organizer: { name: teacher, ...ORGANIZER },
      attendee: { name: member.name, email: member.email },
      term: course.term,
      pattern: s.pattern,
      sessions: sessions.filter((x) => x.seriesId === s.id),
    }),
  );
  return { subject, text, html: htmlOf({ member, teacher, course, lines, first, url, until }), calendars };
}

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

function htmlOf(parts: {
  member: Recipient;
  teacher: string;
  course: CourseRow;
  lines: string[];
  first: string;
  url: string;
  until: string;
}): string {
  const { member, teacher, course, lines, first, url, until } = parts;
  const p = (content: string) => `<p style="margin:0 0 14px">${content}</p>`;
  return `<!doctype html><html lang="en"><body style="margin:0;background:#fbf7ee;color:#22302b;font:16px/1.5 sans-serif">
<div style="max-width:560px;margin:0 auto;padding:24px">
<h1 style="font-size:22px;margin:0 0 14px;color:#1e5244">${escaped(`${course.code} ${course.title}`)}</h1>
${p(`Dear ${escaped(member.name)},`)}
${p(`${escaped(teacher)} invites you to this course.`)}
<ul style="margin:0 0 14px;padding-left:20px">${lines.map((l) => `<li>${escaped(l)}</li>`).join('')}</ul>
${first ? p(escaped(first)) : ''}
<p style="margin:0 0 14px"><a href="${url}" style="background:#1e5244;color:#fff;padding:10px 18px;border-radius:6px;display:inline-block">Go to your class page</a></p>
${p(escaped(until))}
</div></body></html>`;
}
