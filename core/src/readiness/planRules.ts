import type { SeriesDraft } from '../calendar/series';
import { periodFaults } from '../calendar/bellTimes';
import { toEpochDay } from '../calendar/localDate';
import { termDays } from '../calendar/term';
import {
  countWords,
  dateIn,
  dateWords,
  durationWords,
  instantWords,
  listWords,
  swapWords,
} from '../calendar/words';
import type { Found, Rule, Setup, SetupSeries } from './finding';
import { dated, ZONE_RULES } from './zoneRules';

const perSeries = (setup: Setup, find: (s: SetupSeries) => Found | null): Found[] =>
  dated(setup).flatMap((s) => {
    const found = find(s);
    return found ? [{ series: s.id, key: s.id, ...found }] : [];
  });
const perSession = (
  setup: Setup,
  find: (session: SetupSeries['sessions'][number], series: SetupSeries) => Found | null,
): Found[] =>
  dated(setup).flatMap((series) =>
    series.sessions.flatMap((s) => {
      const found = find(s, series);
      return found ? [{ series: series.id, session: s.id, key: s.id, ...found }] : [];
    }),
  );

/** A fix that sets something of a series anew. */
function changing(s: SetupSeries, label: string, pattern: SeriesDraft['pattern']): NonNullable<Found['fix']> {
  const { title, kind, expected, group, leads } = s;
  const series: SeriesDraft = { title, kind, pattern, expected, group, leads: [...leads] };
  return { label, fix: { do: 'edit', edit: { edit: 'change-series', id: s.id, series } } };
}

const skippedWords = ({ planned }: SetupSeries) => {
  const first = planned.skipped.slice(0, 3).map((k) => `${dateWords(k.date)} is ${k.reason}`);
  const more = planned.skipped.length - first.length;
  return first.length ? `: ${listWords(first)}${more > 0 ? `, and ${more} more` : ''}` : '';
};

const noSeries: Rule = {
  id: 'no-series',
  level: 'stops',
  stage: 'plan',
  find: ({ series }) => (series.length ? [] : [{ text: 'Nothing is planned yet. Add the first series.' }]),
};

const noSessions: Rule = {
  id: 'no-sessions',
  level: 'stops',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) =>
      s.planned.sessions.length || s.sessions.length
        ? null
        : { text: `${s.title} has no session: none of its days lies on a teaching day of the term.` },
    ),
};

const periodUnknown: Rule = {
  id: 'period-unknown',
  level: 'stops',
  stage: 'plan',
  find: (setup) =>
    dated(setup).flatMap((s) =>
      periodFaults(s.pattern!, s.periods).map((f) => ({
        series: s.id,
        key: `${s.id}/${f.day}`,
        text: `${s.title}: ${f.message}`,
      })),
    ),
};

const fewerThanExpected: Rule = {
  id: 'fewer-than-expected',
  level: 'warns',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) => {
      const fit = takingPlace(s);
      if (!s.expected || fit >= s.expected) return null;
      return {
        text: `${s.title}: ${countWords(s.expected, 'session')} expected, ${fit} fit${skippedWords(s)}.`,
      };
    }),
};

const moreThanExpected: Rule = {
  id: 'more-than-expected',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) => {
      const fit = takingPlace(s);
      if (!s.expected || fit <= s.expected) return null;
      const ends = { ...s.pattern!, ends: { by: 'count' as const, count: s.expected } };
      return {
        text: `${s.title}: ${countWords(s.expected, 'session')} expected, but ${fit} are planned.`,
        fix: changing(s, `Stop after ${s.expected}`, ends),
      };
    }),
};

const takingPlace = (s: SetupSeries) => s.sessions.filter((x) => x.state !== 'cancelled').length;

const doesNotFit: Rule = {
  id: 'does-not-fit',
  level: 'warns',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) =>
      s.planned.missing > 0
        ? {
            text: `${s.title}: ${countWords(s.planned.missing, 'session')} of ${s.planned.missing + s.planned.sessions.length} have no room before the term ends${skippedWords(s)}.`,
          }
        : null,
    ),
};

const hoursNotReached: Rule = {
  id: 'hours-not-reached',
  level: 'warns',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) =>
      s.planned.missingMinutes > 0
        ? {
            text: `${s.title}: the term ends ${durationWords(s.planned.missingMinutes)} short of the contact hours asked for${skippedWords(s)}.`,
          }
        : null,
    ),
};

const endsBeforeItBegins: Rule = {
  id: 'ends-before-it-begins',
  level: 'stops',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) => {
      const { ends, firstDate } = s.pattern!;
      const begins = firstDate ?? setup.term.firstDay;
      const end = ends.by === 'date' ? ends.date : setup.term.lastDay;
      if (end >= begins) return null;
      return {
        text: `${s.title} ends on ${dateWords(end)}, before it begins on ${dateWords(begins)}.`,
        ...(ends.by === 'date' && begins <= setup.term.lastDay
          ? { fix: changing(s, 'End it with the term', { ...s.pattern!, ends: { by: 'term' } }) }
          : {}),
      };
    }),
};

const endsAfterTerm: Rule = {
  id: 'ends-after-term',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) => {
      const { ends } = s.pattern!;
      if (ends.by !== 'date' || ends.date <= setup.term.lastDay) return null;
      return {
        text: `${s.title} is to end on ${dateWords(ends.date)}, but the term ends on ${dateWords(setup.term.lastDay)}.`,
        fix: changing(s, 'End it with the term', { ...s.pattern!, ends: { by: 'term' } }),
      };
    }),
};

const beginsBeforeTerm: Rule = {
  id: 'begins-before-term',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) => {
      const { firstDate } = s.pattern!;
      if (!firstDate || firstDate >= setup.term.firstDay) return null;
      return {
        text: `${s.title} is to begin on ${dateWords(firstDate)}, before the term does on ${dateWords(setup.term.firstDay)}.`,
        fix: changing(s, 'Begin with the term', { ...s.pattern!, firstDate: setup.term.firstDay }),
      };
    }),
};

const listedDateSkipped: Rule = {
  id: 'listed-date-skipped',
  level: 'warns',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) =>
      s.pattern!.kind === 'dates' && s.planned.skipped.length
        ? {
            text: `${s.title}: ${countWords(s.planned.skipped.length, 'listed date')} will not take place${skippedWords(s)}.`,
          }
        : null,
    ),
};

const monthWithoutDate: Rule = {
  id: 'month-without-date',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) => {
      const p = s.pattern!;
      if (p.kind !== 'monthly') return null;
      if (p.onWeekday?.nth === 5)
        return { text: `${s.title}: months without a fifth ${p.onWeekday.day} have no session.` };
      return p.onDate && p.onDate > 28
        ? { text: `${s.title}: months without day ${p.onDate} have no session.` }
        : null;
    }),
};

const onDayOff: Rule = {
  id: 'on-day-off',
  level: 'warns',
  stage: 'plan',
  find: (setup) => {
    const days = termDays(setup.term);
    return perSession(setup, (session, series) => {
      const date = dateIn(setup.term.zone, session.startsAt);
      const day = toEpochDay(date);
      if (session.state === 'cancelled' || session.state === 'held') return null;
      if (day < days.first || day > days.last || days.follows[day - days.first]! >= 0) return null;
      return {
        text: `${series.title} on ${dateWords(date)} lies on a day off: ${days.reasons.get(day)}.`,
        fix: cancelling(session.id),
      };
    });
  },
};

const offPattern: Rule = {
  id: 'off-pattern',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perSession(setup, (session, series) => {
      const own = session.own.includes('added') || session.own.includes('time');
      if (session.state !== 'planned' || own || session.startsAt <= (setup.now ?? 0)) return null;
      if (series.planned.sessions.some((p) => p.date === session.date)) return null;
      return {
        text: `${series.title} on ${dateWords(session.date)} is no date of its pattern any more.`,
        fix: cancelling(session.id),
      };
    }),
};

const cancelling = (id: string): NonNullable<Found['fix']> => ({
  label: 'Cancel this session',
  fix: { do: 'edit', edit: { edit: 'change-session', id, scope: 'one', change: { do: 'cancel' } } },
});

const outsideTerm: Rule = {
  id: 'outside-term',
  level: 'warns',
  stage: 'plan',
  find: (setup) =>
    perSession(setup, (session, series) => {
      const date = dateIn(setup.term.zone, session.startsAt);
      const { firstDay, lastDay } = setup.term;
      if (session.state === 'cancelled' || session.state === 'held' || (date >= firstDay && date <= lastDay))
        return null;
      return {
        text: `${series.title} on ${dateWords(date)} lies outside the term.`,
        fix: cancelling(session.id),
      };
    }),
};

const clash: Rule = {
  id: 'clash',
  level: 'warns',
  stage: 'plan',
  find: ({ clashes, term }) => {
    const groups = new Map<string, (typeof clashes)[number][]>();
    for (const c of clashes) {
      const key = `${c.series}/${c.other}/${c.people.map((p) => p.name).join()}`;
      groups.set(key, [...(groups.get(key) ?? []), c]);
    }
    return [...groups].map(([key, all]) => {
      const [first] = all as [(typeof clashes)[number]];
      const names = first.people.slice(0, 4).map((p) => p.name);
      const more = first.people.length - names.length;
      const who = listWords(more > 0 ? [...names, countWords(more, 'more', 'more')] : names);
      const times = all.length > 1 ? `, ${all.length} times from then` : '';
      return {
        key,
        series: first.series,
        session: all.length === 1 ? (first.session ?? undefined) : undefined,
        level: first.people.some((p) => p.teaches) ? ('stops' as const) : ('warns' as const),
        text: `${who} ${first.people.length === 1 ? 'has' : 'have'} ${first.other} at the same time on ${instantWords(first.startsAt, term.zone)}${times}: ${first.minutes} minutes overlap.`,
      };
    });
  },
};

const followsOtherDay: Rule = {
  id: 'follows-other-day',
  level: 'advises',
  stage: 'plan',
  find: (setup) => {
    const swaps = new Map(setup.term.daySwaps.map((d) => [d.date, d]));
    return perSession(setup, (session, series) => {
      const swap = swaps.get(session.date);
      if (!swap || session.own.length || session.state !== 'planned' || series.pattern?.kind !== 'weekly')
        return null;
      return {
        text: `${series.title} takes place on a day of another timetable: ${swapWords(swap)}.`,
      };
    });
  },
};

const veryLong: Rule = {
  id: 'very-long',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) => {
      const longest = Math.max(0, ...s.planned.sessions.map((x) => x.minutes));
      if (longest <= 180) return null;
      return {
        text: `${s.title} lasts ${durationWords(longest)} without a break. Two sessions are easier to follow.`,
      };
    }),
};

const lingerMeetsNext: Rule = {
  id: 'linger-meets-next',
  level: 'advises',
  stage: 'plan',
  find: (setup) => {
    const all = dated(setup)
      .flatMap((series) => series.sessions.map((session) => ({ session, series })))
      .filter(({ session }) => session.state === 'planned' || session.state === 'moved')
      .sort((a, b) => a.session.startsAt - b.session.startsAt);
    const seen = new Set<string>();
    return all.flatMap(({ session, series }, i) => {
      const next = all[i + 1];
      if (!next || next.session.startsAt < session.endsAt) return [];
      const key = `${series.id}/${next.series.id}`;
      if (next.session.startsAt >= session.endsAt + session.lingerMinutes * 60_000 || seen.has(key))
        return [];
      seen.add(key);
      return [
        {
          key,
          series: series.id,
          text: `${series.title} lingers ${session.lingerMinutes} minutes, but ${next.series.title} begins ${durationWords((next.session.startsAt - session.endsAt) / 60_000)} after it ends.`,
        },
      ];
    });
  },
};

const missedInThePast: Rule = {
  id: 'never-held',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perSeries(setup, (s) => {
      const now = setup.now ?? -Infinity;
      const past = s.sessions.filter(
        (x) => (x.state === 'planned' || x.state === 'moved') && x.endsAt + x.lingerMinutes * 60_000 < now,
      );
      if (!past.length) return null;
      const begun = s.sessions.some((x) => x.state === 'held' || x.state === 'live');
      return {
        text: `${s.title}: ${countWords(past.length, 'session')} went by without being held, the last on ${dateWords(past.at(-1)!.date)}.`,
        ...(begun || s.pattern!.kind === 'dates'
          ? {}
          : {
              fix: changing(s, 'Begin it today', { ...s.pattern!, firstDate: dateIn(setup.term.zone, now) }),
            }),
      };
    }),
};

const notMadeUp: Rule = {
  id: 'not-made-up',
  level: 'advises',
  stage: 'plan',
  find: (setup) => {
    const replaced = new Set(setup.series.flatMap((s) => s.sessions.map((x) => x.replaces)));
    return perSession(setup, (session, series) =>
      session.state === 'cancelled' && !replaced.has(session.id)
        ? {
            text: `${series.title} of ${dateWords(session.date)} is cancelled and not made up.`,
            fix: { label: 'Find a make-up', fix: { do: 'go', to: `plan/make-up/${session.id}` } },
          }
        : null,
    );
  },
};

const stillDraft: Rule = {
  id: 'still-draft',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    setup.series
      .filter((s) => !s.published && setup.people !== null)
      .map((s) => ({
        series: s.id,
        key: s.id,
        text: `${s.title} is a draft: students do not see it.`,
        fix: {
          label: 'Publish it',
          fix: { do: 'edit' as const, edit: { edit: 'publish' as const, ids: [s.id] } },
        },
      })),
};

export const PLAN_RULES: readonly Rule[] = [
  noSeries,
  noSessions,
  periodUnknown,
  endsBeforeItBegins,
  clash,
  fewerThanExpected,
  moreThanExpected,
  doesNotFit,
  hoursNotReached,
  endsAfterTerm,
  beginsBeforeTerm,
  listedDateSkipped,
  monthWithoutDate,
  onDayOff,
  offPattern,
  outsideTerm,
  ...ZONE_RULES,
  followsOtherDay,
  veryLong,
  lingerMeetsNext,
  missedInThePast,
  notMadeUp,
  stillDraft,
];
