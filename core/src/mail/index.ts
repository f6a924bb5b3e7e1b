export * from './bounce';
export * from './changeWords';
export * from './letter';
export * from './reply';
export * from './template';
