import type {
  MemberScope,
  NamedClash,
  PlanOutcome,
  Role,
  SessionDelta,
  Term,
  Told,
} from '@nimble-bell/core/api';
import { countWords, durationWords, instantWords, termDays, toWall } from '@nimble-bell/core/calendar';
import type { PoolConnection } from 'mysql2/promise';
import { newId } from '../context';
import { json } from '../db/pool';
import { AppError } from '../errors';
import { forgetNews, queueNews } from '../mail/queue';
import { isFor } from '@nimble-bell/core/roster';
import { clashesIn } from './clashes';
import { keepEntries } from '../history/store';
import { invitedIn, linkNews, type InvitedPerson } from '../mail/store';
import { diffOf, isEmpty, type PlanDiff, type RowChange } from './snapshot/diff';
import { snapshot, type SessionRecord, type Snapshot } from './snapshot/store';
import { raiseSequences } from './store';

export interface PlanChange {
  courseId: string;
  term: Term;
  by: string;
  now: number;
  /** When the news of it leaves: what changes until then is told with it. */
  tellAt: number;
  /** The history's latest entry before it. */
  on?: string;
  /** Does the change and gives it in words. */
  make: () => Promise<string>;
  /** It is taken back once it is seen: nothing is kept in the history, and no letter queued. */
  foreseen?: boolean;
  /** Whether nothing changed is worth an entry or a refusal. */
  mayBeEmpty?: boolean;
  /** The entry that it takes back. */
  undoes?: string;
  /** Neither it nor what came before can be taken back. */
  barrier?: boolean;
}

/**
 * Does a change of a course's plan in the caller's transaction and tells what came of it: each session's part, who is
 * told, the clashes there are now. It is kept in the history with the rows before and after, and those it touches get
 * their message queued. Rolled back, it was a preview.
 */
export async function changePlan(db: PoolConnection, change: PlanChange): Promise<PlanOutcome> {
  const { courseId, term, now, on = '' } = change;
  const before = await snapshot(db, courseId);
  const words = await change.make();
  const after = await snapshot(db, courseId);
  const diff = diffOf(before, after);
  if (isEmpty(diff)) {
    if (change.mayBeEmpty)
      return { changeId: null, on, words, sessions: [], told: [], clashes: [], made: [] };
    throw new AppError('no-change');
  }
  const clashes = await clashesWith(db, courseId, diff, now);
  const [done] = await conclude(db, [{ courseId, term, before, after, words, diff }], change);
  return {
    ...{ changeId: done!.changeId, on, words, sessions: done!.sessions, told: done!.told },
    clashes: clashes.map(({ seriesId, ...clash }): NamedClash => clash),
    made: diff.series.filter((s) => !s.before).map((s) => s.after!.id),
  };
}

/** A plan as it was and as it is, with what that is called. */
export interface ChangedPlan {
  courseId: string;
  term: Term;
  before: Snapshot;
  after: Snapshot;
  words: string;
  diff: PlanDiff;
}

/** What came of a changed plan. */
export interface Concluded {
  courseId: string;
  changeId: string | null;
  sessions: SessionDelta[];
  told: Told[];
}

type How = Pick<PlanChange, 'by' | 'now' | 'tellAt' | 'undoes' | 'barrier' | 'foreseen'>;

/** Says of changed plans who is told, keeps them in their histories and queues the news: as many questions as for one. */
export async function conclude(
  db: PoolConnection,
  changed: readonly ChangedPlan[],
  how: How,
): Promise<Concluded[]> {
  const invited = await invitedIn(
    db,
    changed.map((c) => c.courseId),
  );
  // Who has not heard of it yet need not hear that it is taken back.
  const unheard = how.undoes ? await forgetNews(db, how.undoes) : new Set<string>();
  const all = changed.map((plan) => {
    const { courseId, before, after, diff, term } = plan;
    const differing = toldOf(invited.get(courseId) ?? [], before, after, how.now);
    const told = differing.filter((t) => !unheard.has(t.member));
    const changeId = how.foreseen ? null : newId();
    return { plan, changeId, told, sessions: deltasOf(diff, before, after, term) };
  });
  if (!how.foreseen && all.length) await keep(db, all, how);
  return all.map(({ plan, ...rest }) => ({ courseId: plan.courseId, ...rest }));
}

/** Keeps changes in their histories and queues the news of them. */
async function keep(
  db: PoolConnection,
  all: readonly { plan: ChangedPlan; changeId: string | null; told: readonly Told[] }[],
  { by, now, tellAt, undoes, barrier = false }: How,
) {
  const undoing = undoes !== undefined;
  const entries = all.map(({ plan: { courseId, words, diff }, changeId }) => ({
    ...{ id: changeId!, courseId, at: now, by, words, body: diff, undoing, barrier },
  }));
  await keepEntries(db, 'plan_changes', entries);
  const series = new Set(
    all.flatMap(({ plan: { diff } }) => [
      ...diff.sessions.map((s) => (s.after ?? s.before)!.seriesId),
      ...diff.series.map((s) => (s.after ?? s.before)!.id),
    ]),
  );
  if (series.size) await raiseSequences(db, [...series]);
  const news = all.map(({ plan, changeId, told }) => ({
    courseId: plan.courseId,
    changeId: changeId!,
    members: told.map((t) => t.member),
  }));
  await queueNews(db, news, tellAt);
  const members = news.flatMap((n) => n.members);
  const changes = news.map((n) => n.changeId);
  if (members.length) await linkNews(db, changes, members);
}

/** The clashes of those sessions that are new, or at another time: what only goes, or is named, clashes with nothing. */
async function clashesWith(db: PoolConnection, courseId: string, diff: PlanDiff, now: number) {
  const there = (s: SessionRecord | null) =>
    s && s.state !== 'cancelled' ? `${s.startsAt} ${s.endsAt}` : '';
  const moved = diff.sessions.filter(({ before, after }) => there(after) && there(after) !== there(before));
  const people = diff.groups.length > 0 || diff.series.length > 0;
  if (!moved.length && !people) return [];
  const changed = new Set((people ? diff.sessions : moved).map((s) => s.after?.id));
  return (await clashesIn(db, courseId, now)).filter((c) => changed.has(c.sessionId!));
}

const isDated = (plan: Snapshot, s: SessionRecord) => {
  const kind = plan.series.get(s.seriesId)?.kind;
  return kind !== 'open' && kind !== 'capture';
};

/** Each session's part in a change, by its time. Numbers that only count on are no news. */
export function deltasOf(diff: PlanDiff, before: Snapshot, after: Snapshot, term: Term): SessionDelta[] {
  const days = termDays(term);
  const titleOf = (s: SessionRecord) =>
    (after.series.get(s.seriesId) ?? before.series.get(s.seriesId))?.title ?? '';
  return diff.sessions
    .filter(({ before: b, after: a }) => isDated(a ? after : before, (a ?? b)!))
    .map((change) => {
      const { before: b, after: a } = change;
      const record = (a ?? b)!;
      return {
        sessionId: record.id,
        title: record.title ? `${titleOf(record)}: ${record.title}` : titleOf(record),
        was: b && b.state !== 'cancelled' ? timeOf(b) : null,
        becomes: a && a.state !== 'cancelled' ? timeOf(a) : null,
        words: deltaWords(change, term.zone, days),
      };
    })
    .filter((d) => d.words !== '')
    .sort(
      (x, y) =>
        (x.becomes ?? x.was ?? { startsAt: 0 }).startsAt - (y.becomes ?? y.was ?? { startsAt: 0 }).startsAt,
    );
}

const timeOf = (s: SessionRecord) => ({
  startsAt: s.startsAt,
  minutes: Math.round((s.endsAt - s.startsAt) / 60_000),
});

function deltaWords({ before, after }: RowChange<SessionRecord>, zone: string, days: TermDays): string {
  const when = (s: SessionRecord) => instantWords(s.startsAt, zone);
  if (!before) return after!.replaces ? `${when(after!)} is new, as a make-up` : `${when(after!)} is new`;
  if (!after) return `${when(before)} is gone`;
  const parts: string[] = [];
  if (before.state !== 'cancelled' && after.state === 'cancelled')
    return `${when(before)} is cancelled${after.reason ? `: ${after.reason}` : ''}`;
  if (before.state === 'cancelled' && after.state !== 'cancelled')
    parts.push(`takes place again${dayOffWords(after, zone, days)}`);
  if (before.startsAt !== after.startsAt) parts.push(`moves to ${when(after)}`);
  const [was, is] = [timeOf(before).minutes, timeOf(after).minutes];
  if (was !== is) parts.push(`lasts ${durationWords(is)} instead of ${durationWords(was)}`);
  if (after.state === 'cancelled' && after.reason && before.reason !== after.reason && !parts.length)
    parts.push(`is cancelled: ${after.reason}`);
  if (before.title !== after.title)
    parts.push(after.title ? `is called "${after.title}"` : 'has no name of its own');
  if (before.lingerMinutes !== after.lingerMinutes)
    parts.push(`lingers ${countWords(after.lingerMinutes, 'minute')}`);
  if (before.record !== after.record)
    parts.push(after.record === false ? 'is not recorded' : 'is recorded as planned');
  return parts.length ? `${when(before)} ${parts.join(', ')}` : '';
}

type TermDays = ReturnType<typeof termDays>;

/** That a session comes to lie on a day off; nothing where it does not. */
function dayOffWords(s: SessionRecord, zone: string, days: TermDays): string {
  const { day } = toWall(zone, s.startsAt);
  const off = day >= days.first && day <= days.last && days.follows[day - days.first]! < 0;
  return off ? `, on a day off (${days.reasons.get(day)})` : '';
}

interface Seer {
  group: string | null;
  role: Role;
  scope: MemberScope | null;
}

/** Those invited already whose own sessions ahead are not as they were. */
function toldOf(invited: readonly InvitedPerson[], before: Snapshot, after: Snapshot, now: number): Told[] {
  const seen = (plan: Snapshot, member: Seer): string => {
    const lines: string[] = [];
    for (const s of plan.sessions.values()) {
      const series = plan.series.get(s.seriesId);
      if (!series || s.state === 'cancelled' || s.endsAt <= now || !isDated(plan, s)) continue;
      const target = { group: series.group, published: series.publishedAt !== null, seriesId: s.seriesId };
      if (isFor({ ...target, sessionId: s.id }, member))
        lines.push(`${s.startsAt} ${s.endsAt} ${series.title} ${s.title}`);
    }
    return lines.sort().join('\n');
  };
  const cache = new Map<string, boolean>();
  const differing = invited.filter(({ member: id, role, scope }) => {
    const own: MemberScope | null = scope === null ? null : json(scope);
    const key = `${before.groups.get(id)}/${after.groups.get(id)}/${role}/${JSON.stringify(own)}`;
    let differs = cache.get(key);
    if (differs === undefined) {
      const as = (plan: Snapshot): Seer => ({ group: plan.groups.get(id) ?? null, role, scope: own });
      differs = seen(before, as(before)) !== seen(after, as(after));
      cache.set(key, differs);
    }
    return differs;
  });
  return differing.map(({ member, name }) => ({ member, name }));
}
