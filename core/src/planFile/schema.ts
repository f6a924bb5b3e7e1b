import { z } from 'zod';
import { line } from '../text';
import {
  checkListed,
  checkPeriods,
  checkTerm,
  clockDayShape,
  commonShape,
  eachDayOnce,
  eachDayOnceFault,
  endsBeforeItBegins,
  endShapes,
  inOrder,
  listedDateShape,
  LocalDate,
  nthShape,
  onDateShape,
  oneMonthRule,
  oneMonthRuleFault,
  periodDayShape,
  shapes,
  timeShape,
  Zone,
} from '../calendar/plan';

const ends = z
  .discriminatedUnion(
    'by',
    [
      z.strictObject(endShapes[0]),
      z.strictObject(endShapes[1]),
      z.strictObject(endShapes[2]),
      z.strictObject(endShapes[3]),
    ],
    'Give "by" as term, date, count or hours.',
  )
  .default({ by: 'term' });

const Pattern = z.discriminatedUnion(
  'kind',
  [
    z
      .strictObject({
        kind: z.literal('weekly'),
        ...commonShape,
        days: z
          .array(z.union([z.strictObject(clockDayShape), z.strictObject(periodDayShape)]))
          .min(1, 'Choose at least one weekday.')
          .max(7, eachDayOnceFault.message),
        ends,
      })
      .refine(eachDayOnce, eachDayOnceFault),
    z.strictObject({ kind: z.literal('daily'), ...commonShape, ...timeShape, ends }),
    z
      .strictObject({
        kind: z.literal('monthly'),
        ...commonShape,
        ...timeShape,
        onDate: onDateShape.optional(),
        onWeekday: z.strictObject(nthShape).optional(),
        ends,
      })
      .refine(oneMonthRule, oneMonthRuleFault),
    z
      .strictObject({
        kind: z.literal('dates'),
        ...commonShape,
        start: listedDateShape.start,
        minutes: listedDateShape.minutes,
        dates: z
          .array(z.union([LocalDate, z.strictObject(listedDateShape)]))
          .min(1, 'List at least one date.')
          .max(1000),
        ends,
      })
      .superRefine(checkListed),
  ],
  'Give "kind" as weekly, daily, monthly or dates.',
);

const Id = z.string().min(1, 'Give an id.').max(200);

/** A plan as a file, described in docs/guide/command-line.md. Nothing but what is described may stand in it. */
export const PlanFile = z.strictObject({
  term: z
    .strictObject({
      name: shapes.dayOff.name,
      zone: Zone,
      firstDay: LocalDate,
      lastDay: LocalDate,
      daysOff: z.array(z.strictObject(shapes.dayOff).refine(inOrder, endsBeforeItBegins)).default([]),
      daySwaps: z.array(z.strictObject(shapes.daySwap)).default([]),
    })
    .superRefine(checkTerm),
  bellTimes: z
    .strictObject({ periods: z.array(z.strictObject(shapes.period)).superRefine(checkPeriods) })
    .optional(),
  series: z
    .array(
      z.strictObject({
        id: Id,
        title: line('Give the series a name.', 200),
        teacher: Id.optional(),
        people: z.array(Id).optional(),
        pattern: Pattern,
      }),
    )
    .superRefine((all, ctx) => {
      const seen = new Set<string>();
      for (const [i, { id }] of all.entries()) {
        if (seen.has(id))
          ctx.addIssue({ code: 'custom', path: [i, 'id'], message: 'Each series has an id of its own.' });
        seen.add(id);
      }
    }),
});
export type PlanFile = z.infer<typeof PlanFile>;
