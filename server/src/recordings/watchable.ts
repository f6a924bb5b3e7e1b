import type { Request } from 'express';
import type { RecordingInfo } from '@nimble-bell/core/api';
import { isExpired, maySee, mayWatch } from '@nimble-bell/core/recording';
import { teaches } from '@nimble-bell/core/roster';
import { memberIn, principalOf } from '../accounts/principal';
import { membersWhere, type MemberRow } from '../accounts/store';
import type { Context } from '../context';
import { courseById } from '../courses/store';
import { AppError } from '../errors';
import { infoOf, ofStill, recordingsWhere, type RecordingRow } from './store';
import { readTicket, ticketFor } from './ticket';

/** A recording, and who may watch it now. */
export interface Seen {
  row: RecordingRow;
  who: MemberRow;
  /** The viewer's zone; the term's for those who teach. */
  zone: string;
}

/** The zone of its term, if it is still kept. */
export async function keptIn(ctx: Context, row: RecordingRow): Promise<string> {
  const { term } = (await courseById(ctx.db, row.courseId))!;
  if (row.state === 'expired' || isExpired(row.plan, term.zone, ctx.now())) throw new AppError('expired');
  return term.zone;
}

async function watchable(
  ctx: Context,
  req: Request,
  member: (row: RecordingRow) => Promise<MemberRow>,
): Promise<Seen> {
  const [row] = await recordingsWhere(ctx.db, 'r.id', req.params.id as string);
  if (!row) throw new AppError('not-found');
  const who = await member(row);
  if (!mayWatch(row, who, ctx.now())) throw new AppError('forbidden');
  const zone = await keptIn(ctx, row);
  return { row, who, zone: teaches(who.role) ? zone : who.zone };
}

/** The recording of a request, if whoever asks may watch it now. */
export const watchedBy = (ctx: Context, req: Request): Promise<Seen> =>
  watchable(ctx, req, async (row) => memberIn(ctx, await principalOf(ctx, req.headers), row.courseId));

/** The same by the ticket in its address: a media element sends nothing else. */
export const byTicket = (ctx: Context, req: Request): Promise<Seen> =>
  watchable(ctx, req, async (row) => {
    const ticket = readTicket(ctx, String(req.query.ticket ?? ''), row.id);
    const found =
      ticket && (await membersWhere(ctx.db, 'm.id = ? AND m.course_id = ?', [ticket.member, row.courseId]));
    const member = found?.[0];
    if (!ticket || !member || !ticket.isOf(member)) throw new AppError('not-signed-in');
    return member;
  });

/** It is there to be played. */
export function isReady(row: RecordingRow): asserts row is RecordingRow & { file: string } {
  if (row.state !== 'ready' || !row.file) throw new AppError('not-ready');
}

/** Whether this member may take it along, as far as that is theirs to say. */
export const mayHave = (ctx: Context, row: RecordingRow, who: MemberRow): boolean =>
  mayWatch(row, who, ctx.now()) && infoOf(row, teaches(who.role)).mayDownload;

/** It is ready, and this member may take it along now. */
export function downloadable({ row, who }: Pick<Seen, 'row' | 'who'>) {
  if (!infoOf(row, teaches(who.role)).mayDownload) throw new AppError('download-off');
  isReady(row);
}

/** Where its picture is had by somebody. */
const stillPath = (ctx: Context, row: RecordingRow, who: Pick<MemberRow, 'id' | 'link'>) =>
  row.state === 'ready' && row.pictured
    ? `/api/recordings/${row.id}/still?ticket=${ticketFor(ctx, row.id, who)}&${ofStill(row)}`
    : null;

/** Of these recordings what a member sees: those who teach the failed, the expired and those taken away too. */
export const seenBy = (ctx: Context, found: readonly RecordingRow[], member: MemberRow): RecordingInfo[] =>
  found
    .filter(
      (r) =>
        maySee(r, member, ctx.now()) &&
        (teaches(member.role) || (!r.takenAt && r.state !== 'failed' && r.state !== 'expired')),
    )
    .map((r) => ({
      ...infoOf(r, teaches(member.role)),
      still: mayWatch(r, member, ctx.now()) ? stillPath(ctx, r, member) : null,
    }));
