import { toEpochDay, toInstant, toLocalDate, toWall } from '@nimble-bell/core/calendar';
import { SHIPPED_SHEETS, underSheet } from '@nimble-bell/core/limits';
import { noSettings, withValues, type Segment } from '@nimble-bell/core/settings';
import type { PoolConnection } from 'mysql2/promise';
import { newId } from '../context';
import { insertException, writePlace } from '../rules/store';
import { HOME_ZONE } from './scenario';

const DAY = 86_400_000;

const segment = (title: string, minutes: number, sheet: string, more: Partial<Segment> = {}): Segment => ({
  ...{ title, minutes, sheet, recording: null, note: '' },
  limits: SHIPPED_SHEETS.find((s) => s.id === sheet)!.limits,
  ...more,
});

/** The lectures' rule sheet and run sheet, and what two students may otherwise. */
export async function layLectureRules(
  db: PoolConnection,
  course: string,
  lecture: string,
  { teacher, students }: { teacher: string; students: readonly { id: string }[] },
  now: number,
) {
  const at = now - 20 * DAY;
  const ruled = underSheet(
    noSettings(),
    SHIPPED_SHEETS.find((s) => s.id === 'lecture')!,
    teacher,
    at,
  );
  const segments = [
    segment('Welcome', 5, 'discussion'),
    segment('Lecture', 40, 'lecture', { recording: 'on', note: 'Tide tables: the copies are in the files.' }),
    segment('Discussion', 20, 'discussion', { recording: 'paused', note: 'Ask the back row first.' }),
    segment('Questions', 15, 'lecture', { recording: 'on' }),
  ];
  const settings = withValues(ruled, 'runSheet', { segments }, teacher, at);
  await writePlace(db, { layer: 'series', id: lecture, settings });
  const { day } = toWall(HOME_ZONE, now);
  const endOf = (days: number) => toInstant(HOME_ZONE, toEpochDay(toLocalDate(day + days)) + 1, 0);
  const one = { by: teacher, at: now - DAY };
  await insertException(db, course, {
    ...{ ...one, id: newId(), member: students[3]!.id, capability: 'present', state: 'open' },
    ...{ until: endOf(3), reason: 'Shows a passage plan on Friday' },
  });
  await insertException(db, course, {
    ...{ ...one, id: newId(), member: students[11]!.id, capability: 'writeToClass', state: 'closed' },
    ...{ until: endOf(14), reason: 'Agreed after Thursday’s class' },
  });
}
