import {
  clockWords,
  countWords,
  dateIn,
  dateWords,
  durationWords,
  listWords,
  zoneWords,
} from '../calendar/words';
import { zoneBands } from '../calendar/zones';
import type { Found, Rule, Setup, SetupSeries } from './finding';

/** The series that have dates. */
export const dated = (setup: Setup) => setup.series.filter((s) => s.pattern !== null);

const unsociableHour: Rule = {
  id: 'unsociable-hour',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perBands(setup, (s, bands) => {
      const parts = bands.flatMap((band) => {
        const odd = band.hours.filter((h) => h.hour === 'night');
        if (!odd.length) return [];
        const clock = clockWords(odd[0]!.startsAt, band.zone);
        return [`${band.people} in ${zoneWords(band.zone)} (${clock}, ${countWords(odd.length, 'session')})`];
      });
      return parts.length ? `${s.title} runs into the night for ${listWords(parts)}.` : null;
    }),
};

const zoneDrift: Rule = {
  id: 'zone-drift',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perBands(setup, (s, bands) => {
      const parts = bands.flatMap((band) => {
        const drifted = band.hours.filter((h) => h.drift !== 0);
        if (!drifted.length) return [];
        const dates = drifted.map((h) => dateWords(dateIn(setup.term.zone, h.startsAt)));
        const { drift } = drifted[0]!;
        return [
          `${durationWords(Math.abs(drift))} ${drift > 0 ? 'later' : 'earlier'} in ${zoneWords(band.zone)} on ${listWords(dates)}`,
        ];
      });
      return parts.length ? `The clocks change on different dates: ${s.title} is ${listWords(parts)}.` : null;
    }),
};

const zoneShift: Rule = {
  id: 'zone-shift',
  level: 'advises',
  stage: 'plan',
  find: (setup) =>
    perBands(setup, (s, bands) => {
      const parts = bands.flatMap((band) =>
        band.shifts.slice(0, 1).map(({ startsAt }) => {
          const date = dateWords(dateIn(setup.term.zone, startsAt));
          return `${clockWords(startsAt, band.zone)} in ${zoneWords(band.zone)} from ${date} on`;
        }),
      );
      return parts.length
        ? `Clocks change at home and not elsewhere: ${s.title} begins at ${listWords(parts)}.`
        : null;
    }),
};

type Band = ReturnType<typeof zoneBands>[number];

function perBands(setup: Setup, text: (s: SetupSeries, bands: Band[]) => string | null): Found[] {
  const zones = new Map<string, number>();
  const students = (setup.people ?? []).filter((p) => p.role === 'student');
  return dated(setup).flatMap((s) => {
    zones.clear();
    for (const p of students)
      if (s.group === null || p.group === s.group) zones.set(p.zone, (zones.get(p.zone) ?? 0) + 1);
    const list = [...zones].map(([zone, people]) => ({ zone, people }));
    const live = s.sessions.filter((x) => x.state !== 'cancelled' && x.state !== 'held');
    const words = text(s, zoneBands(setup.term.zone, list, live));
    return words ? [{ series: s.id, key: s.id, text: words }] : [];
  });
}

export const ZONE_RULES: readonly Rule[] = [unsociableHour, zoneDrift, zoneShift];
