export * from './framed';
export * from './lettering';
export * from './outline';
export * from './sheet';
