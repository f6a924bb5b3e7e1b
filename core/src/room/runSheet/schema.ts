import { z } from 'zod';
import { Capability, Permission } from '../../limits/schema';
import { MemberId, message } from '../kernel/schema';

/** The most segments of a session. */
export const MOST_SEGMENTS = 50;

/** A segment as a room has it: without the note that is for those who teach. */
export const CuedSegment = z.object({
  title: z.string().max(90),
  minutes: z.number().min(0).max(720),
  limits: z.partialRecord(Capability, Permission),
  recording: z.enum(['on', 'paused']).nullable(),
  /** Its minutes are counted down before everybody. */
  timed: z.boolean().optional(),
});
export type CuedSegment = z.infer<typeof CuedSegment>;

const Index = z
  .int()
  .min(0)
  .max(MOST_SEGMENTS - 1);

export const runSheetCommands = {
  /** The segment that begins now. */
  cue: message('cue', { index: Index }),
  /** Whether segments follow one another by the clock. */
  goByClock: message('goByClock', { on: z.boolean() }),
  /** What is still to come, in its new order and lengths, by where it stands now; what is not named is dropped. */
  planLeft: message('planLeft', {
    left: z.array(z.object({ index: Index, minutes: z.number().min(0).max(720) })).max(MOST_SEGMENTS),
  }),
};

export const runSheetEvents = {
  /** `by` is null where the clock gave the cue. What it says of limits is said with it. */
  cued: message('cued', {
    by: MemberId.nullable(),
    index: Index,
    segment: CuedSegment,
    /** What is otherwise for the class from now on. */
    changes: z.partialRecord(Capability, Permission),
  }),
  clockTaken: message('clockTaken', { by: MemberId, on: z.boolean() }),
  leftPlanned: message('leftPlanned', { by: MemberId, segments: z.array(CuedSegment).max(MOST_SEGMENTS) }),
};
