export * from './framed';
export * from './lettering';
export * from './outline';
export * from './shapes';
export * from './sheet';
export * from './touched';
