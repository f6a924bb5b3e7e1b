/** What share of the runs of a long property test is done: all by `npm run fuzz`, a tenth by every run of the tests. */
declare const SHARE_OF_RUNS: number;

/** How often a property that is meant for so many runs is tried; each time with others. */
export const many = (runs: number): number => Math.ceil(runs * SHARE_OF_RUNS);
