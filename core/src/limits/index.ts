export {
  CAPABILITIES,
  CAPABILITY_IDS,
  capabilityOf,
  COLLEGE_LIMITS,
  PERMISSIONS,
  rowOf,
  IN_CLASS,
  TRACK_KINDS,
  type CapabilityRow,
  type Limits,
  type TrackKind,
} from './capabilities';
export * from './ladder';
export * from './resolve';
export * from './schema';
export * from './sheets';
export * from './tables';
export * from './words';
export { teaches } from '../roster/role';
