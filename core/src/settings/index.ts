export * from './schema';
export * from './values';
