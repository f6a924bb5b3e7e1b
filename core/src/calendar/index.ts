export * from './localDate';
export * from './zone';
export * from './term';
export * from './sessions';
export * from './ics';
export * from './words';
