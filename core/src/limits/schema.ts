import { z } from 'zod';
import { CAPABILITY_IDS, PERMISSIONS, rowOf } from './capabilities';

// Apart from the table itself: pages that only read it do not load what checks.

export const Permission = z.enum(PERMISSIONS);
export type Permission = z.infer<typeof Permission>;

export const Capability = z.enum(CAPABILITY_IDS);
export type Capability = z.infer<typeof Capability>;

/** Some states, as a form sends them. One that makes no sense of its capability is refused. */
export const SomeLimits = z.partialRecord(Capability, Permission).superRefine((limits, ctx) => {
  for (const [c, state] of Object.entries(limits) as [Capability, Permission][])
    if (!rowOf(c).states.includes(state))
      ctx.addIssue({
        code: 'custom',
        path: [c],
        message: `This cannot be ${state === 'byHand' ? 'by hand' : state}.`,
      });
});
export type SomeLimits = z.infer<typeof SomeLimits>;
