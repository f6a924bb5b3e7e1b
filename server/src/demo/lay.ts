import { cp, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { CLASS, SIGNS, type RoomEvent, type StoredEvent } from '@nimble-bell/core/room';
import { tallyOf } from '@nimble-bell/core/questions';
import { toEpochDay, toLocalDate } from '@nimble-bell/core/calendar';
import { setCourseRules } from '../courses/settings';
import { COLLEGE_LIMITS } from '@nimble-bell/core/limits';
import type { PoolConnection } from 'mysql2/promise';
import { hashPassword } from '../accounts/password';
import { newId, newLinkCode, type Context } from '../context';
import { addMember, insertCourse, sessionsOfCourse } from '../courses/store';
import { transaction } from '../db/pool';
import { layAfter } from './layAfter';
import { layDeck } from './layDeck';
import { insertPrepared } from '../questions/store';
import { layLectureRules } from './layRules';
import { queueLetters } from '../mail/queue';
import { writeTelephone } from '../mail/store';
import { laySeries } from '../planning/laySeries';
import { captionsFile } from '../recordings/captions';
import { readyDir } from '../recordings/files';
import { addPicture } from '../recordings/store';
import { layEvents } from '../room/store';
import { closeBooks } from '../after/books';
import { givePins } from '../roster/pins';
import { enrolAll, personOf } from '../roster/store';
import { insertBells, insertTerm } from '../terms/store';
import { insertWritten } from '../writing/store';
import { lessonIn, type MadeLesson } from './lessons';
import { LESSONS } from './lessonScripts';
import * as scenario from './scenario';
import { inventedName } from '@nimble-bell/core/rehearsal';
import { writeSeries } from '../planning/snapshot/store';
import {
  anyTerm,
  layCancelled,
  layHeld,
  layMoved,
  layNotice,
  layPart,
  layRecordingRow,
  layReplies,
  layTeacher,
  lecturesOf,
} from './store';
const MINUTE = 60_000;
const LESSONS_AT = 'lessons';

type DemoLesson = MadeLesson & { folder: string };

interface DemoMember {
  id: string;
  name: string;
  group: string | null;
  /** Has stopped coming. */
  slipping: boolean;
}

/** Lays the demo around the time in force, in one transaction, if there is no term yet. Gives whether it did. */
export async function layDemo(ctx: Context): Promise<boolean> {
  if (await anyTerm(ctx.db)) return false;
  const lessons = await makeLessons(ctx);
  await transaction(ctx.db, async (db) => {
    const termId = newId();
    const term = scenario.demoTerm(ctx.now());
    await insertTerm(db, termId, term);
    const next = scenario.nextTerm(term);
    await insertTerm(db, newId(), next);
    const { name, periods } = scenario.DEMO_BELLS;
    await insertBells(db, newId(), name, periods);
    const password = await hashPassword(scenario.DEMO_PASSWORD);
    for (const { name, email } of Object.values(scenario.TEACHERS))
      await layTeacher(db, { id: newId(), name, email, zone: scenario.HOME_ZONE, passwordHash: password });
    for (const course of scenario.demoCourses(ctx.now())) {
      const id = await insertCourse(db, { ...course, termId });
      const { teacher, students } = await layMembers(db, id, course);
      let lecture = '';
      for (const series of course.series) {
        const seriesId = newId();
        if (series.title === 'Lecture') lecture = seriesId;
        const publishedAt = ctx.now() - 60 * 24 * 60 * MINUTE;
        await writeSeries(db, id, { expected: null, ...series, id: seriesId, leads: [], publishedAt });
        await laySeries(db, { ...series, id: seriesId, courseId: id }, term, null);
      }
      if (course.code === 'NAV-210') await layLine(db, id);
      await queueLetters(db, {
        courseId: id,
        topic: 'invitation',
        cause: 'first',
        members: students.map((s) => s.id),
        dueAt: ctx.now(),
      });
      if (course.code === 'NAV-210') {
        await layRules(db, id, teacher.id, term.lastDay, ctx.now());
        await layLectureRules(db, id, lecture, { teacher: teacher.id, students }, ctx.now());
        await layBoard(db, id, students, ctx.now());
        await layWritten(ctx, db, id, { teacher, students });
        for (const prepared of scenario.PREPARED)
          await insertPrepared(db, id, newId(), teacher.name, prepared);
      }
      await layPast(ctx, db, id, { teacher, students, lessons: course.code === 'NAV-210' ? lessons : [] });
    }
  });
  await rm(path.join(readyDir(ctx), LESSONS_AT), { recursive: true });
  return true;
}

async function layMembers(db: PoolConnection, courseId: string, course: scenario.DemoCourse) {
  const teach = async (who: keyof typeof scenario.TEACHERS, role: 'teacher' | 'assistant') => {
    const person = await personOf(db, scenario.TEACHERS[who].email);
    const id = newId();
    await addMember(db, { id, courseId, personId: person!.id, role, group: null, link: newLinkCode() });
    return { id, name: scenario.TEACHERS[who].name, group: null, slipping: false };
  };
  const teacher = await teach(course.teacher, 'teacher');
  if (course.assistant) await teach(course.assistant, 'assistant');
  const [first, end] = course.students;
  const people = Array.from({ length: end - first }, (_, k) => {
    const i = first + k;
    const name = inventedName(i);
    const group = course.groups.length ? course.groups[i % course.groups.length]! : null;
    const zone = scenario.STUDENT_ZONES[i % scenario.STUDENT_ZONES.length]!;
    return { name, email: scenario.addressOf(name), zone, group };
  });
  // One address has gone away: its invitation comes back, and wants mending.
  if (course.code === 'MET-140') people.at(-1)!.email = `gone.away.${people.at(-1)!.email}`;
  const ids = await enrolAll(db, courseId, people);
  const slipping = scenario.SLIPPING.map((i) => i - first);
  return {
    teacher,
    students: people.map(({ name, group }, k) => ({
      ...{ id: ids[k]!, name, group },
      slipping: slipping.includes(k),
    })),
  };
}

/** A course whose students may call in. */
async function layLine(db: PoolConnection, course: string) {
  await writeTelephone(db, scenario.LINE, course);
  await givePins(db, course);
}

async function layRules(db: PoolConnection, course: string, by: string, keepUntil: string, now: number) {
  const recording = {
    automatic: true,
    keepUntil: toLocalDate(toEpochDay(keepUntil) + 60),
    studentsWatch: true,
    studentsDownload: false,
  };
  await setCourseRules(db, course, { recording, limits: COLLEGE_LIMITS }, by, now - 30 * 24 * 60 * MINUTE);
}

/** What stands on the class's page, and what some of the class have answered. */
async function layBoard(db: PoolConnection, course: string, students: readonly DemoMember[], now: number) {
  await layNotice(db, {
    id: newId(),
    course,
    title: scenario.NOTICE.title,
    body: scenario.noticeBody(now),
    from: now - 26 * 60 * MINUTE,
    by: scenario.TEACHERS.maren.name,
  });
  const lecture = await lecturesOf(db, course);
  const answers = students.flatMap(({ id }, i) => {
    if (i % 4 === 3) return [];
    const answer = i % 11 === 5 ? 'declined' : i % 7 === 2 ? 'tentative' : 'accepted';
    return [[id, lecture!.id, '', answer, 0, now - (40 - i) * 60 * MINUTE]];
  });
  await layReplies(db, answers);
}

/** What is written on the page of the lecture that comes next, and the pages that are shown in it. */
async function layWritten(
  ctx: Context,
  db: PoolConnection,
  course: string,
  { teacher, students }: { teacher: DemoMember; students: readonly DemoMember[] },
) {
  const now = ctx.now();
  const next = (await sessionsOfCourse(db, course)).find(
    (s) => s.seriesTitle === 'Lecture' && s.endsAt > now,
  )!;
  for (const { by, to, hours, text } of scenario.WRITTEN)
    await insertWritten(db, {
      ...{ id: newId(), session: next.id, at: now - hours * 60 * MINUTE, addressee: { to }, text },
      from: by === null ? teacher.id : students[by]!.id,
    });
  await layDeck(ctx, db, { course, session: next.id, by: teacher.name });
}

interface Past {
  teacher: DemoMember;
  students: DemoMember[];
  /** Of the newest lectures; none where nothing is recorded. */
  lessons: DemoLesson[];
}

/** What is behind: sessions held with their events, the newest recorded; one cancelled; one ahead moved. */
async function layPast(ctx: Context, db: PoolConnection, course: string, past: Past) {
  const sessions = await sessionsOfCourse(db, course);
  const over = sessions.filter((s) => s.endsAt + s.lingerMinutes * MINUTE < ctx.now());
  const lectures = over.filter((s) => s.seriesTitle === 'Lecture');
  const cancelled = past.lessons.length ? lectures.at(-4) : undefined;
  for (const [i, session] of over.entries()) {
    if (session === cancelled) {
      await layCancelled(db, session.id);
      continue;
    }
    const students = past.students.filter((s) => session.group === null || s.group === session.group);
    const lesson = past.lessons[lectures.slice(-past.lessons.length).indexOf(session)] ?? null;
    const events = pastEvents(past.teacher, students, session, i, lesson);
    await layEvents(db, session.id, events);
    await closeBooks(db, session.id, events);
    await layAfter(db, session.id, events, i);
    await layHeld(db, session.id);
    if (lesson) await layRecording(ctx, db, session, lesson);
  }
  const ahead = past.lessons.length
    ? sessions.filter((s) => s.seriesTitle === 'Lecture' && s.startsAt > ctx.now())[4]
    : null;
  if (ahead) await layMoved(db, 24 * 60 * MINUTE, ahead.id);
}

/** A held session's events: most are punctual, some late, some absent, one leaves early; a pause after the opening. */
function pastEvents(
  teacher: DemoMember,
  students: DemoMember[],
  session: { startsAt: number; endsAt: number },
  index: number,
  lesson: DemoLesson | null,
): StoredEvent[] {
  const events: { at: number; event: RoomEvent }[] = [];
  const at = (minutes: number, event: RoomEvent) =>
    events.push({ at: session.startsAt + minutes * MINUTE, event });
  const length = (session.endsAt - session.startsAt) / MINUTE;
  const enter = (m: DemoMember, role: 'teacher' | 'student'): RoomEvent => ({
    type: 'entered',
    member: m.id,
    name: m.name,
    role,
    place: CLASS,
  });
  at(-6, enter(teacher, 'teacher'));
  at(-1, { type: 'rangIn', by: teacher.id });
  const begins = -1;
  if (lesson) {
    at(begins, { type: 'recordingStarted', by: null });
    at(begins + lesson.lengthMs / MINUTE, { type: 'recordingPaused', by: teacher.id });
  }
  at(-0.98, { type: 'microphone', member: teacher.id, on: true });
  const here: DemoMember[] = [];
  for (const [i, student] of students.entries()) {
    if ((i * 5 + index * 3) % 11 === 0 || (student.slipping && index > 15)) continue;
    const late = (i + index) % 9 === 0;
    at(late ? 7 + (i % 5) : -0.9 + (i % 20) / 200, enter(student, 'student'));
    if ((i + index) % 17 === 3) at(length - 25, { type: 'left', member: student.id });
    if (!late) here.push(student);
  }
  const say = (when: number, who: number, text: string) => {
    const from = who === 0 ? teacher.id : here[who % here.length]?.id;
    if (from) at(when, { type: 'said', from, addressee: { to: 'class' }, text, place: CLASS });
  };
  if (lesson)
    taught(
      lesson,
      teacher,
      (ms, event) => at(begins + ms / MINUTE, event),
      (ms, who, text) => say(begins + ms / MINUTE, who, text),
      here,
    );
  else for (const [i, [who, text]] of scenario.TALK.entries()) say(-0.75 + i * 0.14, who, text);
  const [asking] = here;
  if (asking) {
    at(-0.5, { type: 'floorGiven', by: teacher.id, member: asking.id });
    at(-0.49, { type: 'microphone', member: asking.id, on: true });
    at(-0.2, { type: 'floorTaken', by: teacher.id, member: asking.id });
  }
  at(length + 1, { type: 'dismissed', by: teacher.id });
  return inOrder(events);
}

/** Numbered in the order of time; a question is known by the number of the event that asked it. */
function inOrder(events: readonly { at: number; event: RoomEvent }[]): StoredEvent[] {
  let asked = 0;
  return events
    .toSorted((a, b) => a.at - b.at)
    .map(({ at, event }, i) => {
      if (event.type === 'asked') asked = i + 1;
      const of = 'question' in event && event.type !== 'asked' ? { question: asked } : {};
      return { ...event, ...of, seq: i + 1, at: Math.round(at) } as StoredEvent;
    });
}

/** A question with a slide: most answer, some of them wrong, and what they said is shown. */
function askedWith(
  { text, options, right }: NonNullable<DemoLesson['slides'][number]['slide']['asks']>,
  teacher: DemoMember,
  here: readonly DemoMember[],
  happen: (ms: number, event: RoomEvent) => void,
) {
  const question = { text, kind: 'one' as const, options, right, anonymous: false };
  happen(1500, { type: 'asked', by: teacher.id, question, seconds: null, live: false });
  const answers = here
    .filter((_, i) => i % 6 !== 5)
    .map((m, i) => ({
      member: m.id,
      answer: i % 3 === 2 ? (right + 1 + (i % 2)) % options.length : right,
    }));
  for (const [i, { member, answer }] of answers.entries())
    happen(2500 + i * 120, { type: 'answered', member, question: 0, answer });
  const tally = tallyOf(
    question,
    answers.map((a) => a.answer),
  );
  happen(7000, { type: 'answersClosed', by: teacher.id, question: 0 });
  happen(7000, { type: 'answersShown', by: teacher.id, question: 0, tally, right });
  happen(13_000, { type: 'questionPutAway', by: teacher.id, question: 0 });
}

/** Some say without a word how they are with it; it fades. */
function signed(slide: number, here: readonly DemoMember[], happen: (ms: number, event: RoomEvent) => void) {
  const sign = SIGNS[slide % 3]!;
  here
    .filter((_, i) => i % 9 === slide % 9)
    .forEach((m, i) => {
      happen(4000 + i * 900, { type: 'signGiven', member: m.id, sign });
      happen(12_000 + i * 600, { type: 'signGiven', member: m.id, sign: null });
    });
}

/** What happened in a lesson: each slide as a part of the run sheet, what was written to it, and put on the board. */
function taught(
  lesson: DemoLesson,
  teacher: DemoMember,
  happen: (ms: number, event: RoomEvent) => void,
  say: (ms: number, who: number, text: string) => void,
  here: readonly DemoMember[],
) {
  lesson.slides.forEach(({ slide, at }, index) => {
    const segment = { title: slide.title, minutes: 20, limits: {}, recording: null };
    if (index > 0) happen(at, { type: 'cued', by: teacher.id, index, segment, changes: {} });
    for (const [ms, who, text] of slide.written ?? []) say(at + ms, who, text);
    signed(index, here, (ms, event) => happen(at + ms, event));
    if (slide.asks) askedWith(slide.asks, teacher, here, (ms, event) => happen(at + ms, event));
    if (!slide.board) return;
    const { text, at: place } = slide.board;
    happen(at + 3500, {
      type: 'textPut',
      by: teacher.id,
      text: { text, at: place, colour: 'ink' },
      ...{ place: CLASS, side: 1 },
    });
    const points = Array.from({ length: 40 }, (_, i) => [
      place[0] + i * 0.009,
      place[1] + 0.07 + 0.008 * Math.sin(i / 3),
    ]).flat();
    happen(at + 5000, {
      type: 'drawn',
      by: teacher.id,
      stroke: { points, colour: 'clay' },
      ...{ place: CLASS, side: 1 },
    });
  });
}

/** The recording of a session that was a lesson: the same files as a class leaves. */
async function layRecording(
  ctx: Context,
  db: PoolConnection,
  session: { id: string; startsAt: number },
  made: DemoLesson,
) {
  const id = newId();
  const ready = readyDir(ctx);
  await cp(made.folder, path.join(ready, id), { recursive: true });
  await writeFile(captionsFile(ready, id, 'en'), made.captions);
  const file = path.join(id, made.sound);
  const files = [file, ...made.pictures.map((p) => path.join(id, p.file))];
  const sizes = await Promise.all(files.map(async (f) => (await stat(path.join(ready, f))).size));
  const bytes = sizes.reduce((sum, size) => sum + size, 0);
  const { lengthMs, silences } = made;
  await layRecordingRow(db, { id, session: session.id, lengthMs, bytes, file, silences });
  for (const [i, p] of made.pictures.entries())
    await addPicture(db, id, i, { ...p, file: path.join(id, p.file), member: null });
  const from = session.startsAt - MINUTE;
  await layPart(db, newId(), id, from, from + lengthMs);
}

/** The demo's lessons are made here: it brings no film along. */
async function makeLessons(ctx: Context): Promise<DemoLesson[]> {
  const folder = path.join(readyDir(ctx), LESSONS_AT);
  return Promise.all(
    LESSONS.map(async (lesson, i) => {
      const own = path.join(folder, String(i));
      return { ...(await lessonIn(lesson, own, ctx.config.madeDir)), folder: own };
    }),
  );
}
