/** How somebody came to be in the course, where they are not on its class list or invited to it. */
export const CAME = ['account', 'visitor'] as const;
export type Came = (typeof CAME)[number];

/** By what somebody is here. */
export const WAYS = ['page', 'telephone'] as const;
export type Way = (typeof WAYS)[number];
