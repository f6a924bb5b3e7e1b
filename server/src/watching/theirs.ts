import type { Request } from 'express';
import { mayWatch } from '@nimble-bell/core/recording';
import { memberIn, principalOf } from '../accounts/principal';
import type { MemberRow } from '../accounts/store';
import type { Context } from '../context';
import { AppError } from '../errors';
import { recordingsWhere, type RecordingRow } from '../recordings/store';

/** The recording of a request, and who asks, if it is theirs to watch now. */
export async function theirs(ctx: Context, req: Request): Promise<{ row: RecordingRow; me: MemberRow }> {
  const [row] = await recordingsWhere(ctx.db, 'r.id', req.params.id as string);
  if (!row) throw new AppError('not-found');
  const me = await memberIn(ctx, await principalOf(ctx, req.headers), row.courseId);
  if (!mayWatch(row, me)) throw new AppError('forbidden');
  return { row, me };
}
