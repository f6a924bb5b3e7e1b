import {
  isStanding,
  type MeetingPattern,
  type PlanEdit,
  type SeriesInput,
  type SeriesKind,
  type Term,
} from '@nimble-bell/core/api';
import {
  cancelledBetween,
  changed,
  countWords,
  dateIn,
  dateWords,
  instantWords,
  numbersOf,
  periodFaults,
  periodsFor,
  sessionsOf,
  termDays,
  toEpochDay,
  toInstant,
  toMinutes,
  toWall,
  weekdayIndex,
  weekdayOf,
  WEEKDAYS,
  type LaidSession,
} from '@nimble-bell/core/calendar';
import { newId } from '../context';
import { seriesById, seriesOf, studentsOf, type SeriesRow } from '../courses/store';
import type { Db } from '../db/pool';
import { AppError } from '../errors';
import { bellTimesOf } from '../terms/store';
import { laySeries } from './laySeries';
import {
  deleteSessions,
  insertSessions,
  removeIfEmpty,
  removeSeries,
  sessionRecords,
  writeSeries,
  writeSessions,
  type SessionRecord,
} from './snapshot/store';
import {
  clearGroups,
  courseOfSession,
  isLive,
  memberName,
  placeOfSession,
  publishOne,
  publishSeries,
  putInGroup,
  renameSession,
  setGroup,
  teachingAmong,
  wasHeld,
} from './store';

export interface Editing {
  db: Db;
  courseId: string;
  term: Term;
  now: number;
}

/** Does an edit of a course's plan, in the caller's transaction. Gives what was done, in words. */
export async function applyEdit(at: Editing, edit: PlanEdit): Promise<string> {
  switch (edit.edit) {
    case 'add-series':
      for (const series of edit.series) await addSeries(at, series);
      return edit.series.length === 1
        ? `${edit.series[0]!.title} added`
        : `${countWords(edit.series.length, 'series', 'series')} added`;
    case 'change-series':
      return changeSeries(at, edit.id, edit.series);
    case 'remove-series': {
      const series = await ownSeries(at, edit.id);
      const taught = await wasHeld(at.db, edit.id);
      if (taught) throw new AppError('series-taught');
      await removeSeries(at.db, edit.id);
      return `${series.title} removed`;
    }
    case 'publish':
      return publish(at, edit.ids);
    case 'change-session':
      return changeSession(at, edit);
    case 'add-session':
      return addSession(at, edit);
    case 'cancel-days':
      return cancelDays(at, edit);
    case 'groups':
      return setGroups(at, edit.plan);
    case 'move-to-group': {
      const member = await ownMember(at, edit.member);
      await setGroup(at.db, edit.group, edit.member);
      return edit.group
        ? `${member.name} moved to group ${edit.group}`
        : `${member.name} taken out of the groups`;
    }
  }
}

async function ownSeries({ db, courseId }: Editing, id: string): Promise<SeriesRow> {
  const series = await seriesById(db, id);
  if (!series || series.courseId !== courseId)
    throw new AppError('not-found', 'There is no such series in this course.');
  return series;
}

async function ownMember({ db, courseId }: Editing, id: string): Promise<{ name: string }> {
  const member = await memberName(db, id, courseId);
  if (!member) throw new AppError('not-found', 'There is no such person on the class list.');
  return member;
}

/** What the schema cannot know: periods that exist, leads that are on the list, a pattern that gives a session. */
async function checkSeries({ db, courseId, term }: Editing, input: SeriesInput) {
  const leads = input.leads.length ? await teachingAmong(db, courseId, input.leads) : [];
  if (leads.length < new Set(input.leads).size)
    throw new AppError('invalid', undefined, [
      { path: 'leads', message: 'Choose teachers and assistants of this course.' },
    ]);
  const { pattern } = input;
  if (!pattern) return;
  const periods = periodsFor(pattern, await bellTimesOf(db));
  const [fault] = periodFaults(pattern, periods);
  if (fault)
    throw new AppError('invalid', fault.message, [
      { path: `pattern.days.${fault.day}.periods`, message: fault.message },
    ]);
  if (sessionsOf(term, pattern, undefined, periods).sessions.length === 0) throw new AppError('no-sessions');
}

async function addSeries(at: Editing, input: SeriesInput): Promise<string> {
  await checkSeries(at, input);
  const id = newId();
  await writeSeries(at.db, at.courseId, { ...input, id, publishedAt: null });
  await laySeries(
    at.db,
    { id, courseId: at.courseId, kind: input.kind, pattern: input.pattern },
    at.term,
    null,
  );
  return id;
}

async function changeSeries(at: Editing, id: string, input: SeriesInput): Promise<string> {
  const series = await ownSeries(at, id);
  await checkSeries(at, input);
  if (await isLive(at.db, id)) throw new AppError('class-running');
  await writeSeries(at.db, at.courseId, { ...input, id, publishedAt: series.publishedAt });
  // A draft that nobody has seen may be laid anew from the first day on.
  const frozen = series.publishedAt === null ? null : at.now;
  await laySeries(
    at.db,
    { id, courseId: at.courseId, kind: input.kind, pattern: input.pattern },
    at.term,
    frozen,
  );
  return input.title === series.title ? `${series.title} changed` : `${series.title} is now ${input.title}`;
}

async function publish(at: Editing, ids: string[]): Promise<string> {
  const all = await Promise.all(ids.map((id) => ownSeries(at, id)));
  await publishSeries(at.db, at.now, ids);
  return all.length === 1
    ? `${all[0]!.title} published`
    : `${countWords(all.length, 'series', 'series')} published`;
}

type SessionEdit = Extract<PlanEdit, { edit: 'change-session' }>;

async function changeSession(at: Editing, { id, scope, change }: SessionEdit): Promise<string> {
  const row = await placeOfSession(at.db, id);
  if (!row || row.courseId !== at.courseId)
    throw new AppError('not-found', 'There is no such session in this course.');
  const held = row.state === 'live' || row.state === 'held';
  // What a session is called may be set right afterwards too.
  if (held && (scope === 'one' || change.do !== 'rename') && change.do !== 'rename')
    throw new AppError('session-over');
  const series = await ownSeries(at, row.seriesId);
  if (isStanding(series.kind) && change.do !== 'rename')
    throw new AppError('invalid', 'A room without dates has no session to change.');
  if (scope === 'all' && (await changeRule(at, series, id, change)))
    return `${series.title}: ${changeWords(change, 'all')}`;
  const records = await sessionRecords(at.db, row.seriesId);
  if (held) {
    const own = records.find((r) => r.id === id)!;
    await renameSession(at.db, change.do === 'rename' ? change.title : own.title, id);
    return `${series.title} of ${dateWords(own.date)}: ${changeWords(change, 'one')}`;
  }
  const after = changed(records as LaidSession[], id, scope, change, at.term.zone, at.now);
  const byId = new Map(records.map((r) => [r.id, r]));
  await writeSessions(
    at.db,
    at.courseId,
    after.map((s) => ({ ...byId.get(s.id)!, ...s, own: [...s.own] })),
  );
  await renumber(at, row.seriesId);
  // By the date that people know: where it was moved to.
  const known = dateIn(at.term.zone, byId.get(id)!.startsAt);
  return `${series.title} of ${dateWords(known)}: ${changeWords(change, scope)}`;
}

function changeWords(change: SessionEdit['change'], scope: SessionEdit['scope']): string {
  const reach = scope === 'one' ? '' : scope === 'later' ? ', and all later ones' : ', every session';
  switch (change.do) {
    case 'move':
      return `moved to ${dateWords(change.date)}, ${change.start}${reach}`;
    case 'cancel':
      return `cancelled${reach}${change.reason ? `: ${change.reason}` : ''}`;
    case 'restore':
      return `restored${reach}`;
    case 'lengthen':
      return `now ${change.minutes} minutes${reach}`;
    case 'rename':
      return change.title ? `called "${change.title}"${reach}` : `without a name of its own${reach}`;
    case 'record':
      return `${change.automatic === false ? 'not recorded' : 'recorded as planned'}${reach}`;
  }
}

type CancelDays = Extract<PlanEdit, { edit: 'cancel-days' }>;

async function cancelDays(at: Editing, edit: CancelDays): Promise<string> {
  const { from, to, reason } = edit;
  if (to < from)
    throw new AppError('invalid', undefined, [{ path: 'to', message: 'The last day is before the first.' }]);
  let count = 0;
  for (const { id, kind } of await seriesOf(at.db, at.courseId)) {
    if (isStanding(kind)) continue;
    const records = await sessionRecords(at.db, id);
    const byId = new Map(records.map((r) => [r.id, r]));
    const off = cancelledBetween(records as LaidSession[], edit, at.term.zone, at.now);
    await writeSessions(
      at.db,
      at.courseId,
      off.map((s) => ({ ...byId.get(s.id)!, ...s, own: [...s.own] })),
    );
    count += off.length;
  }
  const days = from === to ? dateWords(from) : `${dateWords(from)} to ${dateWords(to)}`;
  return `${countWords(count, 'session')} of ${days} cancelled${reason ? `: ${reason}` : ''}`;
}

/** "All" of a weekly series is a change of its rule: the pattern says the new day, time or length from now on. */
async function changeRule(
  at: Editing,
  series: SeriesRow,
  id: string,
  change: SessionEdit['change'],
): Promise<boolean> {
  const { pattern } = series;
  if (pattern?.kind !== 'weekly' || (change.do !== 'move' && change.do !== 'lengthen')) return false;
  const session = (await sessionRecords(at.db, series.id)).find((s) => s.id === id)!;
  if (session.own.length) return false;
  const days = termDays(at.term);
  const place = days.follows[toEpochDay(session.date) - days.first];
  const weekday = place !== undefined && place >= 0 ? place : weekdayOf(toEpochDay(session.date));
  const old = pattern.days.find((d) => weekdayIndex(d.day) === weekday);
  if (!old || 'periods' in old) return false;
  const moved: MeetingPattern = {
    ...pattern,
    days: pattern.days.map((d) => {
      if (change.do === 'lengthen') return 'periods' in d ? d : { ...d, minutes: change.minutes };
      if (d !== old) return d;
      const shift = toEpochDay(change.date) - toWall(at.term.zone, session.startsAt).day;
      return { ...old, day: WEEKDAYS[(((weekday + shift) % 7) + 7) % 7]!, start: change.start };
    }),
  };
  if (new Set(moved.days.map((d) => d.day)).size < moved.days.length) return false;
  const { title, kind, expected, group, leads } = series;
  await changeSeries(at, series.id, { title, kind, expected, group, leads, pattern: moved });
  return true;
}

/** Numbers follow the dates, as when the series is laid. */
async function renumber(at: Editing, seriesId: string) {
  const records = await sessionRecords(at.db, seriesId);
  const others = [...numbersOf(records)].filter(([record, number]) => record.number !== number);
  await writeSessions(
    at.db,
    at.courseId,
    others.map(([record, number]) => ({ ...record, number })),
  );
}

type AddSession = Extract<PlanEdit, { edit: 'add-session' }>;

async function addSession(at: Editing, edit: AddSession): Promise<string> {
  const series = await ownSeries(at, edit.seriesId);
  const startsAt = toInstant(at.term.zone, toEpochDay(edit.date), toMinutes(edit.start));
  if (startsAt + edit.minutes * 60_000 <= at.now)
    throw new AppError('invalid', undefined, [{ path: 'date', message: 'This time is past.' }]);
  const records = await sessionRecords(at.db, series.id);
  if (edit.replaces) {
    const lost = await courseOfSession(at.db, edit.replaces);
    if (lost?.courseId !== at.courseId)
      throw new AppError('not-found', 'There is no such session in this course.');
    if (records.some((r) => r.replaces === edit.replaces && r.state !== 'cancelled'))
      throw new AppError('invalid', 'This session is made up for already.');
  }
  const take = Math.max(-1, ...records.filter((r) => r.date === edit.date).map((r) => r.take)) + 1;
  const session: SessionRecord = {
    id: newId(),
    seriesId: series.id,
    date: edit.date,
    take,
    number: records.length + 1,
    startsAt,
    endsAt: startsAt + edit.minutes * 60_000,
    lingerMinutes: series.pattern?.lingerMinutes ?? 0,
    state: 'planned',
    title: edit.title,
    own: edit.title ? ['title', 'added'] : ['added'],
    replaces: edit.replaces,
    record: null,
  };
  await insertSessions(at.db, at.courseId, [session]);
  await renumber(at, series.id);
  const when = instantWords(startsAt, at.term.zone);
  return edit.replaces
    ? `${series.title}: make-up on ${when}`
    : `${series.title}: a session added on ${when}`;
}

type Groups = Extract<PlanEdit, { edit: 'groups' }>['plan'];

async function setGroups(at: Editing, plan: Groups): Promise<string> {
  const names = plan.groups.map((g) => g.name);
  if (new Set(names).size < names.length) throw new AppError('invalid', 'Each group has a name of its own.');
  const known = new Set((await studentsOf(at.db, at.courseId)).map((m) => m.id));
  const placed = plan.groups.flatMap((g) => g.people);
  if (placed.some((id) => !known.has(id)) || new Set(placed).size < placed.length)
    throw new AppError('invalid', 'Each student of the class can be in one group.');
  await clearGroups(at.db, at.courseId);
  for (const g of plan.groups) if (g.people.length) await putInGroup(at.db, g.name, g.people);
  await endVanished(at, plan);
  if (plan.series) await layGroupSeries(at, plan, plan.series);
  return `The class split into ${countWords(plan.groups.length, 'group')}`;
}

const groupSeriesOf = async ({ db, courseId }: Editing) =>
  (await seriesOf(db, courseId)).filter((s) => s.kind === 'group' && s.group !== null);

/**
 * A series whose group is gone goes with it; one that was held keeps its past and ends there, by its pattern too, so that
 * no change of the term brings it back.
 */
async function endVanished(at: Editing, plan: Groups) {
  const gone = (await groupSeriesOf(at)).filter((s) => !plan.groups.some((g) => g.name === s.group));
  for (const s of gone) {
    await deleteSessions(at.db, 'series_id = ? AND ends_at > ?', [s.id, at.now]);
    await renumber(at, s.id);
    const last = (await sessionRecords(at.db, s.id)).at(-1);
    if (!last) await removeIfEmpty(at.db, s.id);
    else if (s.pattern) {
      const ends = { by: 'date' as const, date: last.date };
      await writeSeries(at.db, at.courseId, { ...recordOf(s), pattern: { ...s.pattern, ends } });
    }
  }
}

const recordOf = ({ id, title, kind, pattern, group, expected, leads, publishedAt }: SeriesRow) => ({
  id,
  title,
  kind,
  pattern,
  group,
  expected,
  leads: [...leads],
  publishedAt,
});

/** A series a group. A group that has one keeps it, with its past. */
async function layGroupSeries(at: Editing, plan: Groups, wanted: NonNullable<Groups['series']>) {
  if (wanted.slots.length !== plan.groups.length)
    throw new AppError('invalid', 'Give a slot for each group.');
  const old = await groupSeriesOf(at);
  const kind: SeriesKind = 'group';
  for (const [i, { name }] of plan.groups.entries()) {
    const pattern: MeetingPattern = {
      kind: 'weekly',
      every: wanted.every,
      days: [wanted.slots[i]!],
      lingerMinutes: 0,
      ends: { by: 'term' },
    };
    const input = { title: `${wanted.title} ${name}`, kind, pattern, expected: null, group: name, leads: [] };
    const known = old.find((o) => o.group === name);
    if (known) await changeSeries(at, known.id, input);
    else {
      const id = await addSeries(at, input);
      // A group of a published plan is seen like the ones it joins.
      if (old.some((o) => o.publishedAt !== null)) await publishOne(at.db, at.now, id);
    }
  }
}
