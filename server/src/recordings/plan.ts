import type { RecordingPlan, SessionInfo } from '@nimble-bell/core/api';

/** Whether a session is recorded by itself: a capture always, another as it says itself or as its course plans. */
export const recordsItself = (
  session: Pick<SessionInfo, 'kind' | 'record'>,
  plan: RecordingPlan | null,
): boolean => session.kind === 'capture' || (session.record ?? plan?.automatic ?? false);
