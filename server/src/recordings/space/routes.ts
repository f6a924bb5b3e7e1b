import { Router } from 'express';
import type { RecordingSpace } from '@nimble-bell/core/api';
import { bytesAMinute } from '@nimble-bell/core/recording';
import { asked } from '../../accounts/principal';
import type { Context } from '../../context';
import { recordingsWhere } from '../store';
import { freeFor } from './free';
import { leavingSoon } from './soon';

/** What a course's recordings take, what there is, and which go before long. */
export function spaceRoutes(ctx: Context): Router {
  const router = Router();
  router.get('/courses/:course/recording-space', async (req, res) => {
    const { courseId } = await asked(ctx, req, 'teach');
    const all = (await recordingsWhere(ctx.db, 's.course_id', courseId)).filter((r) => r.state === 'ready');
    const known = all.map((r) => ({ lengthMs: Number(r.lengthMs), bytes: Number(r.bytes) }));
    const taken = known.reduce((sum, r) => sum + r.bytes, 0);
    const space: RecordingSpace = {
      free: await freeFor(ctx, taken),
      quota: ctx.config.courseSpace,
      taken,
      perMinute: bytesAMinute(known),
      soon: leavingSoon(all, ctx.now()).map(({ day, recordings }) => ({
        day,
        sessions: recordings.map((r) => r.sessionId),
      })),
    };
    res.json(space);
  });
  return router;
}
