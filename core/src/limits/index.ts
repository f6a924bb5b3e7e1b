export * from './capabilities';
export * from './resolve';
export * from './words';
export { teaches } from '../roster/role';
