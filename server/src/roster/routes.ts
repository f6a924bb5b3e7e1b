import type { PoolConnection } from 'mysql2/promise';
import { Router } from 'express';
import {
  ClassLinkInput,
  ListEdit,
  UndoInput,
  type ClassLinkInfo,
  type ListChangeInfo,
  type ListOutcome,
} from '@nimble-bell/core/api';
import { asked } from '../accounts/principal';
import { newId, newLinkCode, type Context } from '../context';
import { courseById, seriesOf, sessionsOfCourse } from '../courses/store';
import { listFor } from './listFor';
import { rehearse, type Db } from '../db/pool';
import { baseOf, stillOn } from '../history/base';
import { takeTurn } from '../courses/turn';
import { parse } from '../errors';
import { once } from '../requests/once';
import { lettersOf } from '../mail/foretell';
import { changeList, isSpent, leftWords, undoRows, type ListChangeRow } from './change';
import { applyListEdit } from './edit';
import { takeBack, wayBack } from '../history/undo';
import { listChangesOf, listSnapshot, membersOf, writeClassLink } from './store';
import type { MemberRow } from '../accounts/store';

const edited = async (
  ctx: Context,
  db: PoolConnection,
  member: MemberRow,
  edit: ListEdit,
  base: string | null = null,
): Promise<ListOutcome> => {
  const { courseId } = member;
  const course = await takeTurn(db, courseId);
  const { term } = course;
  const on = await stillOn(db, 'list_changes', course, base);
  const now = ctx.now();
  return changeList(db, {
    courseId,
    by: member.name,
    now,
    on,
    invite: 'invite' in edit && edit.invite,
    make: () => applyListEdit({ db, courseId, term, now }, edit),
  });
};

const classLink = async (ctx: Context, courseId: string): Promise<ClassLinkInfo> => {
  const course = (await courseById(ctx.db, courseId))!;
  return { path: course.classLink ? `/class/${course.classLink}` : null, passcode: course.classPasscode };
};

export function rosterRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/courses/:course/members', async (req, res) => {
    const me = await asked(ctx, req, 'teach');
    res.json(
      listFor(
        me,
        await membersOf(ctx.db, me.courseId),
        await seriesOf(ctx.db, me.courseId),
        await sessionsOfCourse(ctx.db, me.courseId),
      ),
    );
  });

  editRoutes(router, ctx);

  classLinkRoutes(router, ctx);
  return router;
}

/** Six characters that can be read out; tries are limited where it is asked for. */
const newPasscode = () => newId().slice(0, 6);

async function listWayBack(db: Db, courseId: string) {
  const current = await listSnapshot(db, courseId);
  return wayBack<ListChangeRow[]>(db, 'list_changes', courseId, (diff) => isSpent(diff, current));
}

/** Edits of the class list: previewed, read before they are sent, done, undone. */
function editRoutes(router: Router, ctx: Context) {
  /** What an edit of the class list would do: done, told, and taken back. */
  router.post('/courses/:course/members/preview', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const edit = parse(ListEdit, req.body);
    const outcome = await rehearse(ctx.db, (db) => edited(ctx, db, member, edit));
    res.json({ ...outcome, changeId: null });
  });

  /** The letters that an edit would cause, as they would leave. */
  router.post('/courses/:course/members/letters', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const edit = parse(ListEdit, req.body);
    res.json(
      await lettersOf(ctx, member.courseId, async (db) => (await edited(ctx, db, member, edit)).people),
    );
  });

  /** The edit itself: all of it, or nothing. Whoever is off the list is out of every room this moment. */
  router.post('/courses/:course/members', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const edit = parse(ListEdit, req.body);
    const outcome = await once(ctx, req, (db) => edited(ctx, db, member, edit, baseOf(req)));
    res.status(201).json(outcome);
  });

  /** The way back of the latest change that stands; a change itself. */
  router.post('/courses/:course/members/undo', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const { change } = parse(UndoInput, req.body);
    const { courseId } = member;
    const outcome = await once(ctx, req, async (db) => {
      await takeTurn(db, courseId);
      const now = ctx.now();
      const latest = await takeBack(db, 'list_changes', await listWayBack(db, courseId), change, now);
      const make = async () => {
        const left = await undoRows(db, courseId, latest.body, now);
        return `Undone: ${latest.words}${leftWords(left)}`;
      };
      const by = member.name;
      return changeList(db, { courseId, by, now, invite: 'again', make, mayBeEmpty: true, undoing: true });
    });
    res.json(outcome);
  });

  router.get('/courses/:course/members/history', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    const found = await listChangesOf(ctx.db, courseId);
    const { entry, spent } = await listWayBack(ctx.db, courseId);
    const history: ListChangeInfo[] = found.map((c) => ({
      ...c,
      undoable: c.id === entry?.id,
      spent: spent.includes(c.id),
    }));
    res.json(history);
  });
}

/** The link that a whole class shares. */
function classLinkRoutes(router: Router, ctx: Context) {
  /** The link that a whole class shares: shown, hidden, or made anew with its passcode. */
  router.get('/courses/:course/class-link', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    res.json(await classLink(ctx, courseId));
  });

  router.put('/courses/:course/class-link', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const input = parse(ClassLinkInput, req.body);
    const course = (await courseById(ctx.db, courseId))!;
    const code =
      input.do === 'hide'
        ? null
        : input.do === 'replace'
          ? newLinkCode()
          : (course.classLink ?? newLinkCode());
    const passcode =
      code === null
        ? course.classPasscode
        : (input.passcode ?? (input.do === 'replace' ? null : course.classPasscode) ?? newPasscode());
    await writeClassLink(ctx.db, code, passcode, courseId);
    res.json(await classLink(ctx, courseId));
  });
}
