import type { SessionDelta } from '@nimble-bell/core/api';
import {
  countWords,
  dateWords,
  instantWords,
  patternWords,
  periodsFor,
  requestOf,
  zoneWords,
} from '@nimble-bell/core/calendar';
import { entriesFor } from '../calendars/entries';
import type { MemberRow } from '../accounts/principal';
import type { Context } from '../context';
import { seriesOf, sessionsOfCourse, type CourseRow } from '../courses/store';
import { json, one, rows } from '../db/pool';
import { deltasOf } from '../planning/change';
import type { PlanDiff, Snapshot } from '../planning/snapshot';
import { bellTimesOf } from '../terms/store';
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
  const [series, sessions, bells, entries, teachers] = await Promise.all([
    seriesOf(ctx.db, course.id),
    sessionsOfCourse(ctx.db, course.id),
    bellTimesOf(ctx.db),
    entriesFor(ctx, member),
    rows<{ name: string }>(
      ctx.db,
      "SELECT p.name FROM members m JOIN people p ON p.id = m.person_id WHERE m.course_id = ? AND m.role = 'teacher'",
      [course.id],
    ),
  ]);
  const url = `${ctx.config.origin}/in/${member.link}`;
  const teacher = teachers[0]?.name ?? course.code;
  const subject = `${course.code} ${course.title}: your way in`;
  const own = series.filter((s) => isFor({ group: s.group, published: s.publishedAt !== null }, member));
  const live = sessions.filter((s) => s.state !== 'cancelled' && isFor(s, member));
  const next = live.find((s) => s.endsAt > ctx.now());
  const lines = own.map((s) => {
    const count = live.filter((x) => x.seriesId === s.id).length;
    if (!s.pattern) return `${s.title}: a room that stands open all term`;
    return `${s.title}: ${patternWords(s.pattern, periodsFor(s.pattern, bells))} (${zoneWords(course.term.zone)} time), ${countWords(count, 'session')}`;
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
  const organizer = { name: teacher, ...ORGANIZER };
  const attendee = { name: member.name, email: member.email };
  const calendars = entries.map((entry) => requestOf({ ...entry, organizer, attendee }));
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
${teacher ? p(`${escaped(teacher)} invites you to this course.`) : ''}
<ul style="margin:0 0 14px;padding-left:20px">${lines.map((l) => `<li>${escaped(l)}</li>`).join('')}</ul>
${first ? p(escaped(first)) : ''}
<p style="margin:0 0 14px"><a href="${url}" style="background:#1e5244;color:#fff;padding:10px 18px;border-radius:6px;display:inline-block">Go to your class page</a></p>
${p(escaped(until))}
</div></body></html>`;
}

/** What a change of the plan means for one person: each session's part in their own time, and their calendar anew. */
export async function changeLetterFor(
  ctx: Context,
  course: CourseRow,
  member: Recipient,
  changeId: string,
): Promise<Letter | null> {
  const change = await one<{ body: unknown }>(ctx.db, 'SELECT body FROM plan_changes WHERE id = ?', [
    changeId,
  ]);
  if (!change) return null;
  const diff = json<PlanDiff>(change.body);
  const touched = new Set([
    ...diff.sessions.map((s) => (s.after ?? s.before)!.seriesId),
    ...diff.series.map((s) => (s.after ?? s.before)!.id),
  ]);
  const [invitation, entries] = await Promise.all([
    invitationFor(ctx, course, member),
    entriesFor(ctx, member),
  ]);
  const url = `${ctx.config.origin}/in/${member.link}`;
  const own = ownDeltas(diff, await seriesOf(ctx.db, course.id), course, member);
  const lines = own.slice(0, 12).map((d) => `${d.title}: ${d.words}`);
  if (own.length > 12) lines.push(`and ${own.length - 12} more: your page shows them all`);
  if (!lines.length)
    lines.push('Your sessions are not those you had. Your page shows the ones that are yours now.');
  const subject = `${course.code} ${course.title}: the plan has changed`;
  const closing = `All times are ${zoneWords(member.zone)} time. Your link is the same as before.`;
  const text = [
    `Dear ${member.name},`,
    'The plan of this course has changed.',
    lines.join('\n'),
    `Your page: ${url}`,
    closing,
  ].join('\n\n');
  const organizer = { name: course.code, ...ORGANIZER };
  const attendee = { name: member.name, email: member.email };
  const uids = new Set([...touched].map((id) => `${id}@nimble-bell`));
  return {
    ...invitation,
    subject,
    text,
    html: htmlOf({
      member,
      teacher: '',
      course,
      lines,
      first: 'The plan of this course has changed.',
      url,
      until: closing,
    }),
    calendars: entries
      .filter((e) => uids.has(e.uid))
      .map((entry) => requestOf({ ...entry, organizer, attendee })),
  };
}

/** The parts of a change that are this member's, in their zone. */
function ownDeltas(
  diff: PlanDiff,
  series: Awaited<ReturnType<typeof seriesOf>>,
  course: CourseRow,
  member: Recipient,
): SessionDelta[] {
  const known = new Map<
    string,
    { title: string; kind: string; group: string | null; publishedAt: number | null }
  >(series.map((s) => [s.id, s]));
  for (const { before, after } of diff.series) known.set((after ?? before)!.id, (after ?? before)!);
  const mine = diff.sessions.filter((s) => {
    const of = known.get((s.after ?? s.before)!.seriesId);
    return of && isFor({ group: of.group, published: of.publishedAt !== null }, member);
  });
  const plan = { series: known, sessions: new Map(), groups: new Map() } as unknown as Snapshot;
  return deltasOf({ ...diff, sessions: mine }, plan, plan, { ...course.term, zone: member.zone });
}
