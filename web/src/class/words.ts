import type { MemberInfo, MemberScope, Role, CourseDetail } from '@nimble-bell/core/api';
import { countWords, listWords } from '@nimble-bell/core/calendar';

export const INVITATION_WORDS: Record<MemberInfo['invitation'], string> = {
  none: 'not yet',
  queued: 'on its way',
  sent: 'sent',
  failed: 'not delivered',
  bounced: 'came back',
  void: 'not needed',
};

/** What each role may do, in a line: read before it is given. */
export const ROLE_WORDS: Record<Role, string> = {
  teacher: 'rings in, teaches, changes the plan, the list and the limits',
  assistant: 'rings in and runs the class as a teacher does; changes neither plan nor list',
  student: 'is invited, on the roll, and bound by the limits',
  guest: 'comes by a link for the sessions chosen, with the rights chosen',
  observer: 'watches and listens, and is not on the roll',
};

/** Answers to the whole series first; single sessions counted. */
export function replyWords(member: MemberInfo): string {
  const whole = member.replies.filter((r) => r.date === null).map((r) => r.answer);
  const single = member.replies.length - whole.length;
  const kinds = [...new Set(whole)];
  const parts =
    kinds.length === 1 ? [kinds[0]!] : kinds.map((k) => `${k} ${whole.filter((w) => w === k).length}`);
  if (single) parts.push(countWords(single, 'session'));
  if (member.replies.some((r) => r.outdated)) parts.push('before a change');
  if (member.replies.some((r) => !r.verified)) parts.push('not verified');
  return parts.join(', ');
}

export function scopeWords(scope: MemberScope, course: CourseDetail): string {
  const series = scope.series.map((id) => course.series.find((s) => s.id === id)?.title ?? 'a series');
  const sessions = scope.sessions.map((id) => {
    const s = course.sessions.find((x) => x.id === id) ?? course.standing.find((x) => x.id === id);
    return s ? `${s.seriesTitle} ${s.number}` : 'a session';
  });
  return `only ${listWords([...series, ...sessions])}`;
}
