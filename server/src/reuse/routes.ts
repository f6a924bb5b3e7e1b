import type { PoolConnection } from 'mysql2/promise';
import { Router, type Request } from 'express';
import { line } from '@nimble-bell/core/text';
import { z } from 'zod';
import {
  Capability,
  CarryInput,
  Permission,
  RecordingPlan,
  SeriesInput,
  type CarryPreview,
  type TemplateInfo,
} from '@nimble-bell/core/api';
import { carry, periodsFor } from '@nimble-bell/core/calendar';
import { asked, principalOf } from '../accounts/principal';
import { newId, newLinkCode, type Context } from '../context';
import { setCourseRules } from '../courses/settings';
import { addMember, courseByCode, courseById, insertCourse, seriesOf } from '../courses/store';
import { json, type Db } from '../db/pool';
import { DoorInput } from '@nimble-bell/core/door';
import { takeTurn } from '../courses/turn';
import { AppError, parse } from '../errors';
import { once } from '../requests/once';
import { changePlan } from '../planning/change';
import { applyEdit, type Editing } from '../planning/edit';
import { copyPageNotes } from '../slides/store';
import { copyPrepared } from '../questions/store';
import { bellTimesOf, termById, termShared } from '../terms/store';
import { dropTemplate, keepTemplate, setYoungPupils, templateById, templatesOf } from './store';
import { carried, carrySeries, fitting, withoutDates } from './carry';
import { KeptRules, layRules, rulesOf } from './rules';

const Name = z.object({ name: line('Give the template a name.', 80) });
const Template = z.object({
  series: z.array(SeriesInput),
  door: DoorInput,
  limits: z.partialRecord(Capability, Permission),
  recordingPlan: RecordingPlan.nullable(),
  /** What was said where, sheets and run sheets too; templates of before have only what was in force. */
  rules: KeptRules.optional(),
});

const own = async (ctx: Context, req: Request) => {
  const principal = await principalOf(ctx, req.headers);
  if (principal.kind !== 'account' || !principal.person.staff) throw new AppError('forbidden');
  return principal.person;
};

const target = async (db: Db, id: string) => {
  const term = await termById(db, id);
  if (!term) throw new AppError('not-found', 'There is no such term.');
  return term;
};

/** What is said of a course, and prepared for it, for another as well. */
async function takeOver(db: Db, from: string, to: { courseId: string; teacher: string; now: number }) {
  await layRules(db, to.courseId, await rulesOf(db, from), to.teacher, to.now);
  await copyPrepared(db, from, to.courseId);
  await copyPageNotes(db, from, to.courseId);
}

/** What has been planned once, planned again: templates, and carrying a course to another term. */
export function reuseRoutes(ctx: Context): Router {
  const router = Router();

  templateRoutes(router, ctx);

  carryRoutes(router, ctx);
  return router;
}

interface Applying {
  name: string;
  body: z.infer<typeof Template>;
  courseId: string;
  member: string;
  by: string;
}

async function applyTemplate(
  ctx: Context,
  db: PoolConnection,
  { name, body, courseId, member, by }: Applying,
) {
  const { term } = await takeTurn(db, courseId);
  const at: Editing = { db, courseId, term, now: ctx.now() };
  const { door, limits, recordingPlan, rules } = body;
  const whole = rules ? {} : { door, limits };
  await setCourseRules(db, courseId, { ...whole, ...carried(recordingPlan, term) }, member, at.now);
  const fits = await fitting(at, body.series);
  const make = async () => {
    if (fits.length) await applyEdit(at, { edit: 'add-series', series: fits });
    if (rules) await layRules(db, courseId, rules, member, at.now);
    return `Template ${name} applied`;
  };
  const tellAt = at.now + ctx.config.gatherMs;
  return changePlan(db, { courseId, term, by, now: at.now, tellAt, make, mayBeEmpty: true });
}

/** Templates: kept, laid into a course, thrown away. */
function templateRoutes(router: Router, ctx: Context) {
  router.get('/templates', async (req, res) => {
    const { id } = await own(ctx, req);
    const found = await templatesOf(ctx.db, id);
    const list: TemplateInfo[] = found.map((t) => ({
      id: t.id,
      name: t.name,
      at: t.at,
      series: Template.parse(json(t.body)).series.map((s) => s.title),
    }));
    res.json(list);
  });

  /** Keeps a course's series, door, limits and recording plan under a name; the same name replaces what it held. */
  router.post('/courses/:course/template', async (req, res) => {
    const { courseId, personId } = await asked(ctx, req, 'plan');
    const { name } = parse(Name, req.body);
    const course = (await courseById(ctx.db, courseId))!;
    const series = (await seriesOf(ctx.db, courseId)).map(({ title, kind, pattern, expected, group }) => ({
      title,
      kind,
      pattern: pattern && withoutDates(pattern),
      expected,
      group,
      leads: [],
    }));
    const { door, limits, recordingPlan } = course;
    const body = { series, door, limits, recordingPlan, rules: await rulesOf(ctx.db, courseId) };
    await keepTemplate(ctx.db, { id: newId(), person: personId, name, body, now: ctx.now() });
    res.status(201).json({});
  });

  router.delete('/templates/:template', async (req, res) => {
    const { id } = await own(ctx, req);
    const gone = await dropTemplate(ctx.db, req.params.template, id);
    if (!gone.affectedRows) throw new AppError('not-found');
    res.json({});
  });

  /** Lays a template's series into a course as drafts, and takes over its door, limits and recording plan. */
  router.post('/courses/:course/template/apply', async (req, res) => {
    const { courseId, personId, id: member, name: by } = await asked(ctx, req, 'plan');
    const { template } = parse(z.object({ template: z.string().max(20) }), req.body);
    const row = await templateById(ctx.db, template, personId);
    if (!row) throw new AppError('not-found');
    const order = { name: row.name, body: Template.parse(json(row.body)), courseId, member, by };
    res.status(201).json(await once(ctx, req, (db) => applyTemplate(ctx, db, order)));
  });
}

/** A course carried to another term. */
function carryRoutes(router: Router, ctx: Context) {
  /** What becomes of each session in another term. */
  router.get('/courses/:course/carry', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'plan');
    const course = (await courseById(ctx.db, courseId))!;
    const to = await target(ctx.db, String(req.query.term ?? ''));
    const bells = await bellTimesOf(ctx.db);
    const preview: CarryPreview = {
      series: (await seriesOf(ctx.db, courseId)).map((s) => ({
        id: s.id,
        title: s.title,
        differences: s.pattern
          ? carry(course.term, to, s.pattern, periodsFor(s.pattern, bells)).differences
          : [],
      })),
    };
    res.json(preview);
  });

  /** Makes the course of the new term: its series as drafts, the differences as they were settled, the rules taken over. */
  router.post('/courses/:course/carry', async (req, res) => {
    const member = await asked(ctx, req, 'plan');
    const input = parse(CarryInput, req.body);
    const id = await once(ctx, req, async (db) => {
      const from = await takeTurn(db, member.courseId);
      await termShared(db, input.term);
      const to = await target(db, input.term);
      if (await courseByCode(db, input.term, from.code)) throw new AppError('code-taken');
      const courseId = await insertCourse(db, {
        termId: input.term,
        code: from.code,
        title: from.title,
      });
      const teacher = newId();
      await addMember(db, {
        id: teacher,
        courseId,
        personId: member.personId,
        role: 'teacher',
        group: null,
        link: newLinkCode(),
      });
      await setYoungPupils(db, from.youngPupils, courseId);
      await setCourseRules(db, courseId, carried(from.recordingPlan, to), teacher, ctx.now());
      const at: Editing = { db, courseId, term: to, now: ctx.now() };
      await changePlan(db, {
        courseId,
        term: to,
        by: member.name,
        now: ctx.now(),
        tellAt: ctx.now() + ctx.config.gatherMs,
        mayBeEmpty: true,
        make: async () => {
          await carrySeries(at, from.id, from.term, input);
          await takeOver(db, from.id, { courseId, teacher, now: at.now });
          return `Carried over from ${from.term.name}`;
        },
      });
      return courseId;
    });
    res.status(201).json({ id });
  });
}
