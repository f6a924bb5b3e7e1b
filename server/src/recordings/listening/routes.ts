import { Router, type Request } from 'express';
import { ListeningInput } from '@nimble-bell/core/api';
import { listenFeed, type ListenItem } from '@nimble-bell/core/recording';
import { teaches } from '@nimble-bell/core/roster';
import { principalOf } from '../../accounts/principal';
import { membersWhere, type MemberRow } from '../../accounts/store';
import { newLinkCode, type Context } from '../../context';
import { courseById } from '../../courses/store';
import { transaction } from '../../db/pool';
import { AppError, parse } from '../../errors';
import { recordingsWhere, type RecordingRow } from '../store';
import { toldTo } from '../told';
import { downloadable, keptIn, mayHave, watchedBy } from '../watchable';
import { listenedOf } from './sound';
import { listeningBy, listeningOf, queueListening, renewListening } from './store';

/** One's recordings of a course as something to listen to, at a secret address that can be replaced. */
export function listeningRoutes(ctx: Context): Router {
  const router = Router();

  /** Of all that is recorded of the course of this one. */
  router.post('/recordings/:id/listening', async (req, res) => {
    const { who: me } = await watchedBy(ctx, req);
    const { replace } = parse(ListeningInput, req.body);
    const principal = await principalOf(ctx, req.headers);
    const link = principal.kind === 'link' ? me.link : null;
    const code = await transaction(ctx.db, async (db) => {
      const known = await listeningOf(db, me.id);
      // One that an older link opened is dead: it is not handed on.
      if (known && !replace && (known.link === null || known.link === me.link)) return known.code;
      const made = newLinkCode();
      await renewListening(db, { member: me.id, code: made, link }, ctx.now());
      return made;
    });
    await itemsFor(ctx, me, code);
    const path = `/api/listening/${code}.rss`;
    res.json({ path, url: `${ctx.config.origin}${path}` });
  });

  router.get('/listening/:code.rss', async (req, res) => {
    const me = await holderOf(ctx, req);
    const code = String(req.params.code);
    const { code: course, title } = (await courseById(ctx.db, me.courseId))!;
    const items = await itemsFor(ctx, me, code);
    const { origin } = ctx.config;
    const page = teaches(me.role) ? `${origin}/courses` : `${origin}/in/${me.link}`;
    res.type('application/rss+xml; charset=utf-8').set('Cache-Control', 'private, max-age=300');
    const about = 'What was recorded of this class, to listen to. This address is yours alone.';
    res.send(
      listenFeed({
        title: `${course} ${title}`,
        about,
        url: `${origin}/api/listening/${code}.rss`,
        page,
        items,
      }),
    );
  });

  router.get('/listening/:code/:recording.mp3', async (req, res) => {
    const me = await holderOf(ctx, req);
    const [row] = await recordingsWhere(ctx.db, 'r.id', String(req.params.recording));
    if (row?.courseId !== me.courseId || !mayHave(ctx, row, me)) throw new AppError('not-found');
    await keptIn(ctx, row);
    downloadable({ row, who: me });
    const { bytes, path } = await listenedOf(ctx, row);
    if (bytes === null) throw new AppError('not-ready');
    res.sendFile(path, { dotfiles: 'allow', headers: { 'Content-Type': 'audio/mpeg' } });
  });
  return router;
}

/** Whose address it is: asked anew each time whether it is theirs still. */
async function holderOf(ctx: Context, req: Request): Promise<MemberRow> {
  const known = await listeningBy(ctx.db, String(req.params.code));
  const [me] = known ? await membersWhere(ctx.db, 'm.id = ?', [known.member]) : [];
  if (!known || !me || (known.link !== null && known.link !== me.link)) throw new AppError('not-found');
  return me;
}

/** What they may take along, as far as it is made; what is not is made meanwhile. */
async function itemsFor(ctx: Context, me: MemberRow, code: string): Promise<ListenItem[]> {
  const all = await recordingsWhere(ctx.db, 's.course_id', me.courseId);
  const found = await Promise.all(all.map((row) => itemFor(ctx, row, me, code)));
  return found.filter((i) => i !== null);
}

async function itemFor(
  ctx: Context,
  row: RecordingRow,
  me: MemberRow,
  code: string,
): Promise<ListenItem | null> {
  if (row.state !== 'ready' || row.finishedAt === null || !mayHave(ctx, row, me)) return null;
  if (!(await keptIn(ctx, row).catch(() => null))) return null;
  const { name, bytes } = await listenedOf(ctx, row);
  if (bytes === null) {
    await queueListening(ctx.db, row.id, name, ctx.now());
    return null;
  }
  const { chapters } = await toldTo(ctx.db, row, { member: me.id, role: me.role });
  return {
    ...{ id: row.id, title: row.title, at: row.startsAt, lengthMs: row.lengthMs, chapters, bytes },
    url: `${ctx.config.origin}/api/listening/${code}/${row.id}.mp3`,
  };
}
