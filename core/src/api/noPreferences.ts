import type { Preferences } from './preferences';

/** Everything as usual. */
export const noPreferences = (): Preferences => ({ style: {}, keys: {} });
