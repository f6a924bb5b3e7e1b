export * from './plans';
export * from './plainWay';
export * from './calendarClient';
