export * from './marks';
export * from './times';
export * from './making';
