import type { CarryInput, MeetingPattern, RecordingPlan, SeriesInput, Term } from '@nimble-bell/core/api';
import { carry, periodsFor, sessionsOf, type Difference } from '@nimble-bell/core/calendar';
import { seriesOf } from '../courses/store';
import { applyEdit, type Editing } from '../planning/edit';
import { bellTimesOf } from '../terms/store';
import { sessionOn } from './store';

const later = (a: string, b: string) => (a > b ? a : b);

/** Dates that belong to one term only are not kept. */
export function withoutDates(pattern: MeetingPattern): MeetingPattern {
  const { firstDate, ...rest } = pattern;
  return (rest.ends.by === 'date' ? { ...rest, ends: { by: 'term' } } : rest) as MeetingPattern;
}

/** The series that give at least a session in this term. */
export async function fitting(at: Editing, series: SeriesInput[]): Promise<SeriesInput[]> {
  const bells = await bellTimesOf(at.db);
  return series.filter(
    ({ pattern }) =>
      !pattern || sessionsOf(at.term, pattern, undefined, periodsFor(pattern, bells)).sessions.length > 0,
  );
}

/** Lays the series of a course's term into another, as drafts, the differences as they were settled. */
export async function carrySeries(at: Editing, from: string, term: Term, input: CarryInput) {
  const bells = await bellTimesOf(at.db);
  for (const { id, title, kind, pattern, expected, group } of await seriesOf(at.db, from)) {
    const carried = pattern && carry(term, at.term, pattern, periodsFor(pattern, bells));
    const series = { title, kind, pattern: carried?.pattern ?? null, expected, group, leads: [] };
    const [fits] = await fitting(at, [series]);
    if (!fits) continue;
    await applyEdit(at, { edit: 'add-series', series: [series] });
    const made = (await seriesOf(at.db, at.courseId)).find((s) => s.title === title && s.group === group)!;
    const settled = input.settled.filter((c) => c.series === id);
    for (const choice of settled) await settle(at, made.id, choice, carried?.differences ?? []);
  }
}

type Choice = CarryInput['settled'][number];

/** A session that fell on a day off takes the proposed day, or none; one that the new term adds can be left out. */
async function settle(at: Editing, seriesId: string, choice: Choice, differences: readonly Difference[]) {
  const difference = differences.find((d) => (d.was?.date ?? d.date) === choice.date);
  if (!difference) return;
  if (difference.outcome === 'moved' && choice.take && difference.date)
    await applyEdit(
      { ...at, now: 0 },
      {
        edit: 'add-session',
        seriesId,
        date: difference.date,
        start: difference.start,
        minutes: difference.minutes,
        title: null,
        replaces: null,
      },
    );
  if (difference.outcome === 'extra' && !choice.take) {
    const session = await sessionOn(at.db, seriesId, difference.date);
    if (session)
      await applyEdit(at, { edit: 'change-session', id: session.id, scope: 'one', change: { do: 'cancel' } });
  }
}

/** A recording plan in another term: kept as long past its end. */
export function carried(recording: RecordingPlan | null, term: { lastDay: string }) {
  if (!recording) return {};
  // Whom alone it is for are people of this term.
  const { onlyFor: _theirs, ...plan } = recording;
  return { recording: { ...plan, keepUntil: later(recording.keepUntil, term.lastDay) } };
}
