export * from './plans';
export * from './plainWay';
export * from './calendarClient';
export * from './autumn';
export * from './rooms';
export * from './relayFile';
export * from './jpeg';
export * from './many';
