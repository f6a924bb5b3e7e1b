export * from './http';
export * from './limits';
export * from './plan';
export * from './room';
export * from './planEdit';
export * from './faults';
export * from './listEdit';
export * from './invite';
