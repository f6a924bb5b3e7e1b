import type { CourseDetail, StageName, StageState } from '@nimble-bell/core/api';

const SOON_MS = 60 * 60_000;

/** How far each stage of the work has come. A stage needs you when it is the next thing that can be done; teaching, when a session is near. */
export function stagesOf(course: Omit<CourseDetail, 'stages'>, now: number): Record<StageName, StageState> {
  const { series, sessions, counts, limitsSet, recordingPlan, findings } = course;
  const planned = sessions.some((s) => s.state !== 'cancelled');
  const stops = (stage: StageName) => findings.some((f) => f.stage === stage && f.level === 'stops');
  const held = sessions.some((s) => s.state === 'held');
  const ahead = sessions.some((s) => s.state === 'live' || (s.state !== 'held' && s.endsAt > now));
  const soon = sessions.some((s) => s.state === 'live' || (s.endsAt > now && s.startsAt - now < SOON_MS));
  const done: [StageName, boolean, boolean][] = [
    ['plan', planned && series.every((s) => s.publishedAt !== null), true],
    ['class', counts.students > 0, true],
    // Whose invitation came back is not invited.
    [
      'invite',
      counts.students > 0 && counts.invited >= counts.students && counts.undelivered === 0,
      planned && counts.students > 0,
    ],
    ['limits', limitsSet !== null, true],
    ['recording', recordingPlan !== null, true],
    ['teach', planned && !ahead, soon],
    ['review', held, false],
  ];
  return Object.fromEntries(
    done.map(([stage, isDone, possible]) => [
      stage,
      isDone && !stops(stage) ? 'done' : possible ? 'needs you' : 'not yet',
    ]),
  ) as Record<StageName, StageState>;
}
