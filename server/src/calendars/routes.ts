import { Router } from 'express';
import { z } from 'zod';
import { calendarOf } from '@nimble-bell/core/calendar';
import { memberIn, personIdOf, principalOf } from '../accounts/principal';
import { newLinkCode, type Context } from '../context';
import { courseById } from '../courses/store';
import { AppError, parse } from '../errors';
import { entriesFor } from './entries';
import { membersWhere } from '../accounts/store';
import { dropFeedsOfOlderLinks, feedByCode, feedCode, keepFeed, type Feed, renewFeed } from './store';

const FeedInput = z.object({
  /** One course; all of the person's where there is none. A personal link speaks of its own course only. */
  course: z.string().max(20).nullable().default(null),
  replace: z.boolean().default(false),
});

/** Calendars to download and subscribe to, each at a secret address that can be replaced. */
export function calendarRoutes(ctx: Context): Router {
  const router = Router();

  /** The address of one's own feed. Replaced, the old one is dead at once. */
  router.post('/feeds', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    const input = parse(FeedInput, req.body);
    const courseId = principal.kind === 'link' ? principal.member.courseId : input.course;
    if (courseId) await memberIn(ctx, principal, courseId);
    const person = personIdOf(principal);
    const of = courseId ?? '';
    const link = principal.kind === 'link' ? principal.member.link : null;
    // One that an older link opened is dead: it is not handed on.
    if (link !== null) await dropFeedsOfOlderLinks(ctx.db, person, of, link);
    const feed = { code: newLinkCode(), personId: person, courseId: of, now: ctx.now(), link };
    await (input.replace ? renewFeed(ctx.db, feed) : keepFeed(ctx.db, feed));
    const { code } = (await feedCode(ctx.db, person, of))!;
    res.json({ path: `/api/feeds/${code}.ics`, url: `${ctx.config.origin}/api/feeds/${code}.ics` });
  });

  /** The calendar itself (RFC 5545), for whoever holds the address. `?download` names the file. */
  router.get('/feeds/:code.ics', async (req, res) => {
    const feed = await feedByCode(ctx.db, req.params.code);
    if (!feed) throw new AppError('not-found');
    const members = await membersOf(feed);
    if (!members.length) throw new AppError('not-found');
    const entries = await entriesFor(ctx, members);
    const first = members[0] && (await courseById(ctx.db, members[0].courseId));
    const name = feed.courseId && first ? `${first.code} ${first.title}` : 'My classes';
    res.type('text/calendar; charset=utf-8');
    res.set('Cache-Control', 'private, max-age=300');
    if (req.query.download !== undefined) res.attachment(`${name}.ics`);
    res.send(calendarOf(entries, null, name));
  });

  /** A calendar's address dies with the link that opened it. */
  const membersOf = async ({ personId, courseId, link }: Feed) =>
    (
      await membersWhere(
        ctx.db,
        "m.person_id = ? AND (? = '' OR m.course_id = ?) AND m.course_id NOT IN (SELECT course_id FROM rehearsals)",
        [personId, courseId, courseId],
      )
    ).filter((m) => link === null || m.link === link);
  return router;
}
