export * from './state';
export * from './decide';
export * from './evolve';
export * from './audience';
