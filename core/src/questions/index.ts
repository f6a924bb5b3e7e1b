export * from './kinds';
export * from './tally';
export * from './read';
