export * from './http';
export * from './after';
export * from './recordings';
export * from './written';
export { COLLEGE_LIMITS, type Limits, type TrackKind } from '../limits/capabilities';
export { Capability, Permission } from '../limits/schema';
export { Role } from '../roster/schema';
export { RecordingPlan } from '../recording/schema';
export { isStanding } from '../calendar/seriesKind';
export { SeriesKind } from '../calendar/schema';
export {
  Addressee,
  BoardText,
  Picture,
  Shape,
  Stroke,
  type RoomCommand,
  type RoomEvent,
  type StoredEvent,
} from '../room/index';
export * from '../calendar/plan';
export * from './live';
export * from './preferences';
export { noPreferences } from './noPreferences';
export * from './planEdit';
export * from './faults';
export * from './listEdit';
export * from './invite';
export * from './rules';
export * from './questions';
export * from './slides';
export * from './film';
export * from '../calendar/series';
export { Scope, SessionChange } from '../calendar/changes';
export { GroupPlan } from '../calendar/groupPlan';
export * from '../mail/answer';
export * from '../mail/invitation';
export * from '../mail/notice';
export * from '../mail/topic';
export * from '../roster/member';
export { WrittenInput } from '../writing/schema';
export type * from './rehearsal';
