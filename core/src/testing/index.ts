export * from './plans';
export * from './plainWay';
