import type { Request } from 'express';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import { principalOf, requireRight } from '../accounts/principal';
import type { Context } from '../context';
import { sessionById } from '../courses/store';
import { AppError } from '../errors';

/** The session in the path (`/sessions/:id/…`), and who asks: somebody who teaches it. */
export async function taught(ctx: Context, req: Request) {
  const principal = await principalOf(ctx, req.headers);
  const session = await sessionById(ctx.db, req.params.id as string);
  if (!session) throw new AppError('not-found');
  const me = await requireRight(ctx, principal, session.courseId, 'teach');
  if (!isFor(targetOf(session), me)) throw new AppError('forbidden');
  return { session, me };
}
