export * from './clashes';
export * from './makeUp';
