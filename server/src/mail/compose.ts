import { Unwanted, type LetterTopic } from '@nimble-bell/core/api';
import {
  countWords,
  dateWords,
  firstDateWords,
  instantWords,
  listWords,
  movedAlike,
  ownTimesWords,
  scheduleWords,
  periodsFor,
  timesWords,
  updateOf,
  withdrawalOf,
  zoneWords,
  type CalendarCopy,
  type CalendarMessage,
  type CalendarUpdate,
  type HeldSession,
  PLAIN,
  writingFor,
  type Style,
} from '@nimble-bell/core/calendar';
import {
  changeSentence,
  DEFAULT_INVITATION,
  entryWords,
  filled,
  filledLine,
  htmlOf,
  paragraph,
  spokenPin,
  telephoneWords,
  textOf,
  type Block,
  type FieldValues,
} from '@nimble-bell/core/mail';
import { entriesOf, type CoursePlan } from '../calendars/entries';
import { entryOfKey } from '../calendars/uid';
import type { SessionRow } from '../courses/store';
import { isFor, seriesTarget, targetOf } from '@nimble-bell/core/roster';
import { mayWords } from '@nimble-bell/core/limits';
import { recordingWords } from '@nimble-bell/core/recording';
import type { MemberRow } from '../accounts/store';
import { NONE, sessionOf, titleOf } from './parts';
import { asked, leaving, nobodyThere, space } from './toTeachers';

/** A letter as it leaves. */
export interface Letter {
  subject: string;
  text: string;
  html: string;
  /** One iTIP message a calendar entry and method (RFC 5546 asks for one UID a message). */
  calendars: CalendarMessage[];
  /** Where its reader can do without letters of its kind; only of those that one can do without. */
  off?: string;
}

export interface Composed {
  /** Null where there is nothing to say. */
  letter: Letter | null;
  /** What the person's calendar holds once they have the letter, by entry. */
  copies: Map<string, CalendarCopy>;
  /** What the letter does to each entry, in words. */
  entries: string[];
  /** The sessions that are no more as the reader knew them, by original date, of each entry. */
  changed: Map<string, string[]>;
}

/** What letters of a course are composed from: read once for as many as there are. */
export interface Desk {
  plan: CoursePlan;
  /** Who teaches, for the letters' words. */
  teachers: string[];
  origin: string;
  organizer: string;
  now: number;
  /** How readers chose to have days and hours written, by person; for others as the college does. */
  styles: ReadonlyMap<string, Style>;
  /** Notices that are to be mailed, as blocks for one reader. */
  notices: Map<string, (member: MemberRow) => { title: string; blocks: Block[] }>;
}

export interface LetterOrder {
  topic: LetterTopic;
  about: Record<string, unknown>;
}

/** One letter for one person, as the plan stands now, beside what their calendar holds. */
export function compose(
  desk: Desk,
  member: MemberRow,
  order: LetterOrder,
  held: ReadonlyMap<string, CalendarCopy>,
): Composed {
  if (member.quiet.some((t) => t === order.topic)) return NONE;
  // Nothing here waits: the letter is written from end to end for its one reader.
  return writingFor(desk.styles.get(member.personId) ?? PLAIN, () =>
    WRITERS[order.topic](new Writing(desk, member, order, held)),
  );
}

/** The dates of what somebody knew, and is at another time now, or not at all. */
const datesChanged = (changes: CalendarUpdate['changes']): string[] =>
  changes
    .filter(({ was, is }) => was && (was.startsAt !== is?.startsAt || was.minutes !== is.minutes))
    .map((c) => c.date);

/** What every letter to a person is made with. */
export class Writing {
  readonly course: Desk['plan']['course'];
  readonly heading: string;
  readonly dear: Block;
  readonly button: Block;
  /** The telephone line, where the course has one. */
  readonly calling: Block[];

  constructor(
    readonly desk: Desk,
    readonly member: MemberRow,
    readonly order: LetterOrder,
    readonly held: ReadonlyMap<string, CalendarCopy>,
  ) {
    this.course = desk.plan.course;
    this.heading = `${this.course.code} ${this.course.title}`;
    this.dear = paragraph(`Dear ${member.name},`);
    this.button = { kind: 'button', label: 'Go to your class page', url: `${desk.origin}/in/${member.link}` };
    const telephone = telephoneWords(this.course.telephone, member.pin);
    this.calling = telephone ? [paragraph(telephone)] : [];
  }

  /** What is new for the reader's calendar; with `again`, the whole of it or one session is said again. */
  updates(again: SessionRow | 'whole' | null = null): Updates {
    return updatesFor(this.desk, this.member, this.held, again);
  }

  finish(subject: string, blocks: Block[], updates: Updates = new Map()): Composed {
    const footer = footerOf(this.desk);
    const off = Unwanted.safeParse(this.order.topic).success
      ? `${this.desk.origin}/api/letters-off/${this.member.link}/${this.order.topic}`
      : null;
    const body: Block[] = off
      ? [...blocks, { kind: 'button', label: 'Do without letters like this', url: off }]
      : blocks;
    return {
      letter: {
        subject,
        text: textOf([...body, paragraph(footer)]),
        html: htmlOf(this.heading, body, footer),
        calendars: [...updates.values()].flatMap((u) => u.messages),
        ...(off ? { off } : {}),
      },
      copies: new Map([...updates].map(([key, u]) => [key, u.copy])),
      entries: [...updates.values()].map(entryWords),
      changed: new Map([...updates].map(([key, { changes }]) => [key, datesChanged(changes)])),
    };
  }
}

function invitation(w: Writing): Composed {
  const named = w.order.about.session !== undefined;
  const session = named ? sessionOf(w.desk, w.member, w.order) : null;
  // To one session, which moved, is cancelled or is over since: there is nothing to invite to.
  if (named && !session) return NONE;
  const { subject, blocks } = invitationFor(w.desk, w.member, session);
  return w.finish(subject, blocks, w.updates(session ?? 'whole'));
}

function update(w: Writing): Composed {
  const updates = w.updates();
  if (!updates.size) return NONE;
  const all = [...updates.values()];
  if (all.every((u) => !u.changes.length)) {
    const titles = listWords(all.map((u) => u.copy.title));
    const words = `Your calendar is brought up to date: ${titles}. No time has changed.`;
    const blocks = [w.dear, paragraph(words), ...w.calling, w.button];
    return w.finish(`${w.heading}: your calendar entries`, blocks, updates);
  }
  const news = newsOf(w.desk, w.member, updates);
  const closing = paragraph(
    `All times are ${zoneWords(w.member.zone)} time. Your link is the same as before.`,
  );
  const opening = paragraph('The plan of this course has changed.');
  const blocks = [w.dear, opening, news, w.button, ...w.calling, closing];
  return w.finish(`${w.heading}: the plan has changed`, blocks, updates);
}

function goodbye(w: Writing): Composed {
  const updates: Updates = new Map();
  for (const [key, copy] of w.held) {
    const gone = withdrawalOf(copy, nameFor(w.desk, w.member));
    if (gone) updates.set(key, gone);
  }
  const text = `You are no longer on the class list of ${w.heading}. Your link, its recordings and files are shut, and your calendar entries are taken back.`;
  const ask = paragraph(`If this is a mistake, write to ${teacherOf(w.desk)}.`);
  return w.finish(`${w.heading}: you are off the class list`, [w.dear, paragraph(text), ask], updates);
}

function newLink(w: Writing): Composed {
  const text = 'Your link has been replaced. The old one opens nothing any more; this is the new one:';
  const closing = paragraph('Your calendar entries are brought up to date with it.');
  const blocks = [w.dear, paragraph(text), w.button, ...w.calling, closing];
  return w.finish(`${w.heading}: your new link`, blocks, w.updates('whole'));
}

function aboutSession(w: Writing): Composed {
  const session = sessionOf(w.desk, w.member, w.order);
  if (!session) return NONE;
  const title = titleOf(session);
  const when = `${instantWords(session.startsAt, w.member.zone)}, ${zoneWords(w.member.zone)} time`;
  const [subject, words] =
    w.order.topic === 'nudge'
      ? [
          `${w.course.code} ${title} has begun`,
          `${title} has begun and you are not there yet. There is still time: come in.`,
        ]
      : [`${w.course.code} ${title}: ${when}`, `${title} begins ${when}.`];
  return w.finish(subject, [w.dear, paragraph(words), w.button, ...w.calling]);
}

function notice(w: Writing): Composed {
  const found = w.desk.notices.get(String(w.order.about.notice))?.(w.member);
  if (!found) return NONE;
  const blocks: Block[] = [{ kind: 'heading', text: found.title }, ...found.blocks, w.button];
  return w.finish(`${w.course.code}: ${found.title}`, blocks);
}

/** Of a class that can be watched, to who was not there, or to all; nothing where it is theirs no more. */
function toWatch(w: Writing): Composed {
  const { recording, session: id, there } = w.order.about;
  const session = w.desk.plan.sessions.find((s) => s.id === id);
  if (!session || !isFor(targetOf(session), w.member)) return NONE;
  const title = titleOf(session);
  const words = `${title} of ${instantWords(session.startsAt, w.member.zone)} can be watched. ${there ? 'What' : 'You were not there: what'} was said, shown and written is all in it.`;
  const button: Block = {
    kind: 'button',
    label: 'Watch it',
    url: `${w.desk.origin}/in/${w.member.link}/watch/${String(recording)}`,
  };
  return w.finish(`${w.course.code} ${title} can be watched`, [w.dear, paragraph(words), button]);
}

/** What somebody who teaches writes to some of the class; with the way to a recording where it is about one. */
function word(w: Writing): Composed {
  const { text, by, recording } = w.order.about;
  const button: Block = recording
    ? {
        kind: 'button',
        label: 'Watch it',
        url: `${w.desk.origin}/in/${w.member.link}/watch/${String(recording)}`,
      }
    : w.button;
  const lines = String(text)
    .split(/\n{2,}/)
    .map(paragraph);
  return w.finish(`${w.course.code}: a word from ${String(by)}`, [w.dear, ...lines, button]);
}

const WRITERS: Record<LetterTopic, (w: Writing) => Composed> = {
  invitation,
  update,
  goodbye,
  link: newLink,
  reminder: aboutSession,
  nudge: aboutSession,
  missing: nobodyThere,
  notice,
  recording: toWatch,
  question: asked,
  word,
  leaving,
  space,
};

type Updates = Map<string, CalendarUpdate>;

const footerOf = (desk: Desk) =>
  `${desk.plan.course.code} ${desk.plan.course.title}, sent by Nimble Bell for ${teacherOf(desk)}. Your link is yours alone: do not pass it on.`;

const teacherOf = (desk: Desk) => desk.teachers[0] ?? desk.plan.course.code;

const nameFor = (desk: Desk, member: MemberRow) => ({
  organizer: { name: teacherOf(desk), email: desk.organizer },
  attendee: { name: member.name, email: member.email },
  stamp: desk.now,
  term: desk.plan.course.term,
});

/**
 * What has to be said to a person's calendar, entry by entry; entries that are no longer theirs are withdrawn. All of
 * them, or the one session, are said again though nothing changed.
 */
function updatesFor(
  desk: Desk,
  member: MemberRow,
  held: ReadonlyMap<string, CalendarCopy>,
  again: 'whole' | SessionRow | null = null,
): Updates {
  const updates: Updates = new Map();
  const names = nameFor(desk, member);
  const entries = entriesOf(desk.plan, member, desk.origin, desk.now);
  for (const { key, entry } of entries) {
    const own = again === null || again === 'whole' ? again : entry.sessions.includes(again) ? again : null;
    const update = updateOf(held.get(key) ?? null, { ...entry, ...names }, own);
    if (update) updates.set(key, update);
  }
  const theirs = new Set(entries.map((e) => e.key));
  for (const [key, copy] of held) {
    const gone = theirs.has(key) ? null : withdrawalOf(copy, names);
    if (gone) updates.set(key, gone);
  }
  return updates;
}

const MOST_LINES = 12;

type Changes = CalendarUpdate['changes'];

function newsOf(desk: Desk, member: MemberRow, updates: Updates): Block {
  const lines = [...updates].flatMap(([key, update]) => entryNews(desk, member, key, update));
  const items = lines.slice(0, MOST_LINES);
  if (lines.length > MOST_LINES)
    items.push(`and ${lines.length - MOST_LINES} more: your page shows them all`);
  return { kind: 'list', items: items.length ? items : ['Sessions that are past are set right.'] };
}

/** What is new of one entry: what happened to many sessions alike is one line. */
function entryNews(desk: Desk, member: MemberRow, key: string, { changes, copy }: CalendarUpdate): string[] {
  const title = desk.plan.series.find((s) => s.id === entryOfKey(key).seriesId)?.title ?? copy.title;
  const home = desk.plan.course.term.zone;
  if (!copy.sessions.length && changes.length > 1)
    return [`${title}: no longer in your plan, ${countWords(changes.length, 'session')} taken off`];
  if (changes.length === copy.sessions.length && changes.every((c) => !c.was) && changes.length > 3) {
    const when = timesWords(copy.sessions, member.zone, home);
    const first = firstDateWords(copy.sessions, member.zone);
    return [
      `${title}: new in your plan, ${when}, first on ${first}, ${countWords(changes.length, 'session')}`,
    ];
  }
  if (!changes.length) return [`${title}: the entry in your calendar is brought up to date`];
  const ahead = changes.filter((c) => (c.is ?? c.was)!.startsAt > desk.now);
  const { told, rest } = movesOf(title, ahead, member.zone, home);
  return [...told, ...rest.map((c) => changeSentence(title, c, member.zone, reasonOf(desk, key, c.date)))];
}

/** Moves of many sessions from one time of the week to another, a line each; and what is left to be said singly. */
function movesOf(title: string, changes: Changes, zone: string, home: string) {
  const moved = changes.flatMap((c) =>
    c.was && c.is && c.was.startsAt !== c.is.startsAt && c.was.title === c.is.title
      ? [{ was: c.was, is: c.is, change: c }]
      : [],
  );
  const { alike } = movedAlike(moved, home);
  const words = (all: { was: HeldSession; is: HeldSession }[]) => {
    const is = all.map((m) => m.is);
    const was = all.map((m) => m.was);
    return `${timesWords(is, zone, home)} instead of ${timesWords(was, zone, home)}, from ${firstDateWords(is, zone)} on, ${countWords(all.length, 'session')}`;
  };
  const said = new Set(alike.flat().map((m) => m.change));
  return { told: alike.map((g) => `${title}: ${words(g)}`), rest: changes.filter((c) => !said.has(c)) };
}

/** Why the session of an entry's date is cancelled, where that was said. */
function reasonOf(desk: Desk, key: string, date: string): string | null {
  const { seriesId, session } = entryOfKey(key);
  const take = session?.take ?? 0;
  return (
    desk.plan.sessions.find((s) => s.seriesId === seriesId && s.date === date && s.take === take)?.reason ??
    null
  );
}

/** The invitation by the course's template, to the whole course or to one session, which its subject then names. */
function invitationFor(desk: Desk, member: MemberRow, session: SessionRow | null) {
  const template = desk.plan.course.invitation ?? DEFAULT_INVITATION;
  const values = fieldsFor(desk, member, session);
  const subject = filledLine(template.subject, values);
  const named = session === null || template.subject.includes('{session}');
  return {
    subject: named ? subject : `${subject}, ${values.session}`,
    blocks: filled(template.text, values),
  };
}

/** Every field of a template, for one person; about one session where the letter is. */
function fieldsFor(desk: Desk, member: MemberRow, session: SessionRow | null): FieldValues {
  const { course, series, sessions, bells } = desk.plan;
  const own = sessions.filter((s) => s.state !== 'cancelled' && isFor(targetOf(s), member));
  const next = session ?? own.find((s) => s.endsAt > desk.now);
  const begins = next && `${instantWords(next.startsAt, member.zone)}, ${zoneWords(member.zone)} time`;
  const calls = course.telephone !== null && member.pin !== null;
  const theirs = series.filter((s) => isFor(seriesTarget(s), member) || own.some((x) => x.seriesId === s.id));
  return {
    name: member.name,
    course: `${course.code} ${course.title}`,
    teacher: teacherOf(desk),
    series: theirs.map((s) => {
      if (!s.pattern) return `${s.title}: a room that stands open all term`;
      const { zone } = course.term;
      const ofIt = own.filter((x) => x.seriesId === s.id);
      const atHome = () =>
        `${scheduleWords(s.pattern!, periodsFor(s.pattern!, bells), ofIt, zone)} (${zoneWords(zone)} time)`;
      const when = ownTimesWords(ofIt, member.zone, zone) ?? atHome();
      return `${s.title}: ${when}, ${countWords(ofIt.length, 'session')}`;
    }),
    next: next ? `${session ? titleOf(session) : 'The next session'} begins ${begins}.` : '',
    session: next ? `${titleOf(next)}, ${begins}` : '',
    link: `${desk.origin}/in/${member.link}`,
    zone: zoneWords(member.zone),
    until: dateWords(course.term.lastDay),
    telephone: calls ? course.telephone! : '',
    pin: calls ? spokenPin(member.pin!) : '',
    recording: recordingWords(course.recordingPlan),
    limits: mayWords(course.limits),
  };
}
