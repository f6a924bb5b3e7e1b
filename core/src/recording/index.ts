export * from './timeline';
export * from './mixing';
