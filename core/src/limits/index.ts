export * from './resolve';
export * from './words';
