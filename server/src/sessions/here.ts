import type { Request } from 'express';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import { memberIn, principalOf } from '../accounts/principal';
import type { MemberRow } from '../accounts/store';
import type { Context } from '../context';
import { sessionById, type LayeredSession } from '../courses/store';
import { AppError } from '../errors';

/** The session in the path (`/sessions/:id/…`), and who asks: somebody whom it is for. */
export async function here(ctx: Context, req: Request): Promise<{ session: LayeredSession; me: MemberRow }> {
  const principal = await principalOf(ctx, req.headers);
  const session = await sessionById(ctx.db, req.params.id as string);
  if (!session) throw new AppError('not-found');
  const me = await memberIn(ctx, principal, session.courseId);
  if (!isFor(targetOf(session), me)) throw new AppError('forbidden');
  return { session, me };
}
