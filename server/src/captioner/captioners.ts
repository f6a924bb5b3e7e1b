import type { Logger } from 'pino';
import type { Config } from '../config';
import type { MediaRelay } from '../media/relay';
import type { Captioner } from './captioner';
import { scripted } from './scripted';
import { sphinx } from './sphinx';

/** The captioner that the college has chosen, if any. */
export const captionerFor = (which: Config['captioner'], relay: MediaRelay, log: Logger): Captioner | null =>
  which === 'none' ? null : which === 'pocketsphinx' ? sphinx(relay, log) : scripted;
