import { randomInt } from 'node:crypto';
import type { PoolConnection } from 'mysql2/promise';
import { dateIn, isStanding } from '@nimble-bell/core/calendar';
import { standInClass } from '@nimble-bell/core/rehearsal';
import { noSettings, withValues, type Settings } from '@nimble-bell/core/settings';
import type { MemberRow } from '../accounts/store';
import { newId, newLinkCode } from '../context';
import { addMember, courseById, type LayeredSession } from '../courses/store';
import type { Db } from '../db/pool';
import { AppError } from '../errors';
import { insertSessions, writeSeries } from '../planning/snapshot/store';
import { copyPrepared } from '../questions/store';
import { saidAnew } from '../reuse/rules';
import { enrolAll } from '../roster/store';
import { sheetsUsed } from '../rules/rules';
import { shareSheets, writePlace } from '../rules/store';
import { seatedIn } from '../sessions/store';
import { copyPageNotes } from '../slides/store';
import {
  insertRehearsal,
  insertRehearsalCourse,
  lendMaterials,
  neverMissed,
  noteOverOf,
  standInAddress,
} from './store';

interface Beginning {
  session: LayeredSession;
  me: MemberRow;
  size: number;
  now: number;
}

/** So many stand-ins there are at once: classes that are taught come first. */
const MOST_IN_ALL = 1000;

const settingsOf = ({ layers }: LayeredSession, name: string): Settings =>
  layers.find((l) => l.name === name)?.settings ?? noSettings();

/**
 * Lays a course for a rehearsal: the session as it is planned, beginning now, with all that holds in it and all that is
 * prepared for it; whoever rehearses, and a made-up class in the groups of the real one. Nothing of it is recorded. Gives
 * the id of the session whose room it is.
 */
export async function beginRehearsal(db: PoolConnection, { session, me, size, now }: Beginning) {
  const { term, termId, code, title } = (await courseById(db, session.courseId))!;
  const others = await noteOverOf(db, me.personId);
  if (others + size > MOST_IN_ALL)
    throw new AppError('not-ready', 'Too many rehearse just now. Try it with fewer, or a little later.');
  const teacher = newId();
  const places = ['course', 'series', 'session'].map((name) => ({
    name,
    settings: settingsOf(session, name),
  }));
  await shareSheets(db, sheetsUsed(places.map(({ settings }) => ({ layer: 'course', id: '', settings }))));
  const [ofCourse, ofSeries, ofSession] = places.map(({ settings }) => ({
    ...noSettings(),
    ...saidAnew(settings, teacher, now),
  }));
  const settings = withValues(ofCourse!, 'recording', { automatic: false }, teacher, now);
  const course = await insertRehearsalCourse(db, { termId, code, title, settings });
  const own = await layRoom(db, course, session, term.zone, now);
  await writePlace(db, { layer: 'series', id: own.series, settings: ofSeries! });
  await writePlace(db, { layer: 'session', id: own.session, settings: ofSession! });
  await addMember(db, {
    ...{ id: teacher, courseId: course, personId: me.personId, role: me.role },
    ...{ group: null, link: newLinkCode() },
  });
  const seed = randomInt(2 ** 32 - 1);
  await enrolAll(
    db,
    course,
    standInClass(seed, size, await groupsFor(db, session)).map(({ name, role, group }, nr) => ({
      ...{ name, role, group, email: standInAddress(course, nr), zone: term.zone },
    })),
  );
  await copyPrepared(db, session.courseId, course);
  await copyPageNotes(db, session.courseId, course);
  await lendMaterials(db, { course: session.courseId, session: session.id }, course);
  const rehearsal = {
    course,
    session: own.session,
    of: session.id,
    ofCourse: session.courseId,
    person: me.personId,
  };
  await insertRehearsal(db, { ...rehearsal, seed, size, begunAt: now });
  return { session: own.session };
}

/** The groups that are in the session: its own, or all of the class. */
export async function groupsFor(db: Db, { group, courseId }: LayeredSession): Promise<string[]> {
  if (group) return [group];
  const seated = await seatedIn(db, courseId);
  return [...new Set(seated.flatMap((m) => (m.role === 'student' && m.group ? [m.group] : [])))].sort();
}

const HOUR = 3_600_000;

/** Its series and session, which begins now and is as long as the one that is rehearsed. */
async function layRoom(db: PoolConnection, course: string, of: LayeredSession, zone: string, now: number) {
  const [series, session] = [newId(), newId()];
  const standing = isStanding(of.kind);
  await writeSeries(db, course, {
    ...{ id: series, title: of.seriesTitle, kind: standing ? 'class' : of.kind, pattern: null },
    ...{ group: of.group, expected: null, leads: [], publishedAt: now },
  });
  await insertSessions(db, course, [
    {
      ...{ id: session, seriesId: series, date: dateIn(zone, now), take: 0, number: of.number },
      ...{ startsAt: now, endsAt: now + (standing ? HOUR : of.endsAt - of.startsAt) },
      ...{ lingerMinutes: of.lingerMinutes, state: 'planned', title: of.title, own: [] },
      ...{ replaces: null, record: null },
    },
  ]);
  await neverMissed(db, session);
  return { series, session };
}
