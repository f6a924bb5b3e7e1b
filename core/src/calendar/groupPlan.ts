import { z } from 'zod';
import { line } from '../text';
import { ClockTime, Weekday } from './plan';
import { GroupName, Minutes } from './series';

const Id = z.string().min(1).max(20);

/** Who is in which group; and, where asked, a series a group in place of the ones the groups had. */
export const GroupPlan = z.object({
  groups: z.array(z.object({ name: GroupName, people: z.array(Id).max(1000) })).max(200),
  series: z
    .object({
      title: line('Give the series a name.', 70),
      every: z.int().min(1).max(26),
      slots: z.array(z.object({ day: Weekday, start: ClockTime, minutes: Minutes })).max(200),
    })
    .nullable(),
});
export type GroupPlan = z.infer<typeof GroupPlan>;
