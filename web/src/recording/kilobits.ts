/** A camera at VP8 and a mixed voice, kilobits a second: what the relay is told to allow. */
export const KILOBITS = 950;
