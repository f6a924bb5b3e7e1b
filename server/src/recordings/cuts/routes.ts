import { Router, type Request } from 'express';
import { CutBackInput, CutInput, type CutInfo, type CutTable } from '@nimble-bell/core/api';
import { leavesSomething, lengthTold, toldBy, type Watcher } from '@nimble-bell/core/recording';
import { namesIn } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { principalOf, requireRight } from '../../accounts/principal';
import { membersWhere, type MemberRow } from '../../accounts/store';
import type { Context } from '../../context';
import { AppError, parse } from '../../errors';
import { once } from '../../requests/once';
import { detailOf, sendCaptions, sendMedia } from '../detail';
import { asRecorded, recordingsWhere, type RecordingRow } from '../store';
import { readTicket, ticketFor } from '../ticket';
import { toldTo } from '../told';
import { keptIn } from '../watchable';
import { cutsOf, enforceCut, holdCut, insertCut, type CutRow } from './store';

const MEANWHILE =
  'Somebody else has cut it meanwhile. Load it anew; what you made stays on your page until then.';

/** What was recorded, for those who cut it; how it is cut, and was. */
export function cutRoutes(ctx: Context): Router {
  const router = Router();
  const theirs = async (req: Request): Promise<{ row: RecordingRow; me: MemberRow }> => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', req.params.id as string);
    if (!row) throw new AppError('not-found');
    const me = await requireRight(ctx, await principalOf(ctx, req.headers), row.courseId, 'plan');
    if (row.takenAt) throw new AppError('not-ready');
    return { row, me };
  };

  router.get('/recordings/:id/cuts', async (req, res) => {
    const { row, me } = await theirs(req);
    res.json(await tableOf(ctx, row, me));
  });

  router.put('/recordings/:id/cuts', async (req, res) => {
    const { row, me } = await theirs(req);
    const { after, ...cut } = parse(CutInput, req.body);
    if (row.whole.state !== 'ready') throw new AppError('not-ready');
    if (!leavesSomething(cut.marks, row.whole.lengthMs))
      throw new AppError('invalid', 'Nothing would be left of it. Delete it in place of that.');
    const answer = await once(ctx, req, async (db) => {
      if ((await holdCut(db, row.id)) !== after) throw new AppError('moved-on', MEANWHILE);
      const number = await insertCut(db, { ...cut, recording: row.id, by: me.id, at: ctx.now() });
      await enforceCut(db, row.id, number, ctx.now());
      return { number };
    });
    res.json(answer);
  });

  /** One that was made before, or none. */
  router.put('/recordings/:id/cuts/in-force', async (req, res) => {
    const { row } = await theirs(req);
    const { number, after } = parse(CutBackInput, req.body);
    await once(ctx, req, async (db) => {
      if ((await holdCut(db, row.id)) !== after) throw new AppError('moved-on', MEANWHILE);
      if (number !== null && !(await cutsOf(db, row.id)).some((c) => c.number === number))
        throw new AppError('not-found');
      await enforceCut(db, row.id, number, ctx.now());
      return {};
    });
    res.json({});
  });

  wholeRoutes(ctx, router);
  return router;
}

/** The files of what was recorded, by a ticket of their own: no other opens them. */
function wholeRoutes(ctx: Context, router: Router) {
  const whole = async (req: Request): Promise<{ row: RecordingRow; listener: Watcher }> => {
    const [row] = await recordingsWhere(ctx.db, 'r.id', req.params.id as string);
    const ticket = row && readTicket(ctx, String(req.query.ticket ?? ''), wholeOf(row));
    const [me] = ticket
      ? await membersWhere(ctx.db, 'm.id = ? AND m.course_id = ?', [ticket.member, row.courseId])
      : [];
    if (!row || !me || !ticket?.isOf(me)) throw new AppError('not-signed-in');
    if (!plans(me) || row.takenAt) throw new AppError('forbidden');
    await keptIn(ctx, row);
    return { row: asRecorded(row), listener: { member: me.id, role: me.role } };
  };

  router.get('/recordings/:id/whole/media/:file', async (req, res) => {
    await sendMedia(ctx, await whole(req), req.params.file, res);
  });

  router.get('/recordings/:id/whole/captions/:language', async (req, res) => {
    await sendCaptions(ctx, (await whole(req)).row, req.params.language, res);
  });
}

const wholeOf = ({ id }: Pick<RecordingRow, 'id'>) => `${id}-whole`;
const plans = (me: MemberRow) => me.role === 'teacher' && me.scope === null;

async function tableOf(ctx: Context, row: RecordingRow, me: MemberRow): Promise<CutTable> {
  const recorded = asRecorded(row);
  const listener = { member: me.id, role: me.role };
  const [history, told, zone] = await Promise.all([
    cutsOf(ctx.db, row.id),
    toldTo(ctx.db, recorded, listener),
    keptIn(ctx, row),
  ]);
  const address = {
    path: `/api/recordings/${row.id}/whole`,
    query: `?ticket=${ticketFor(ctx, wholeOf(row), me)}`,
  };
  const own = { zone, resume: 0, teaching: true, caring: true, tables: [] };
  const named = namesIn(told.events);
  const people = new Map(
    told.events.flatMap((e) =>
      e.type === 'entered' && !teaches(e.role) ? [[e.member, named(e.member)] as const] : [],
    ),
  );
  const info = ({ number, by, at, marks, nobody }: CutRow): CutInfo => ({
    ...{ number, by, at, marks, nobody },
    lengthMs: lengthTold(toldBy(marks, row.whole.lengthMs)),
  });
  return {
    whole: await detailOf(ctx, recorded, { ...own, told, listener, address }),
    inForce: row.cut?.number ?? null,
    ...{ state: row.state, progress: row.progress },
    history: history.map(info),
    people: [...people].map(([id, name]) => ({ id, name })),
  };
}
