export * from './timeline';
export * from './mixing';
export * from './relayFile';
export * from './plan';
export * from './replay';
export * from './words';
export * from './export';
export * from './withheld';
