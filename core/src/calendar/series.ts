import { z } from 'zod';
import { line } from '../text';
import { MeetingPattern } from './plan';
import { SeriesKind } from './schema';
import { isStanding } from './seriesKind';

const Id = z.string().min(1).max(20);
export const GroupName = line('Give the group a name.', 40);
const Title = line('Give the series a name.', 90);

export const SeriesInput = z
  .object({
    title: Title,
    kind: SeriesKind.default('class'),
    pattern: MeetingPattern.nullable(),
    /** How many sessions the teacher counts on; the dates are checked against it. */
    expected: z.int('Give a whole number.').min(1).max(400).nullable().default(null),
    /** The small group it is for; the whole class without one. */
    group: GroupName.nullable().default(null),
    /** The members who lead it; all teachers of the course where there are none. */
    leads: z.array(Id).max(20).default([]),
  })
  .superRefine((s, ctx) => {
    if (isStanding(s.kind) ? s.pattern !== null : s.pattern === null)
      ctx.addIssue({
        code: 'custom',
        path: ['pattern'],
        message: isStanding(s.kind) ? 'A room without dates has no pattern.' : 'Say when it meets.',
      });
  });
export type SeriesInput = z.infer<typeof SeriesInput>;
/** The same as it may be sent: what has a default can be left out. */
export type SeriesDraft = z.input<typeof SeriesInput>;

/** How long a session lasts. */
export const Minutes = z
  .int('Give whole minutes.')
  .min(1, 'At least a minute.')
  .max(720, 'At most 12 hours.');
export const SessionTitle = line('Give the session a name.', 90);
