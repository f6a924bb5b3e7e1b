import { allInForce, type AfterValues, type Layer } from '../settings/index';

export * from './participation';
export * from './thoughts';

/** What comes after class, and what is counted of it. */
export type AfterRules = AfterValues;

/** Where nobody says otherwise. */
export const COLLEGE_AFTER: AfterRules = {
  participation: true,
  ...{ perMinute: 2, perLine: 1, perHand: 1, perAnswer: 1 },
  thoughts: true,
  watching: true,
};

/** The rules under these layers. */
export const afterRules = (layers: readonly Layer[]): AfterRules =>
  allInForce(layers, 'after', COLLEGE_AFTER);
