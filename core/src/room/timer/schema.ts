import { z } from 'zod';
import { prose } from '../../text/index';
import { MemberId, message } from '../kernel/schema';
import { LONGEST_TIME_S } from './state';

const What = prose(60);

export const timerCommands = {
  /** So many seconds to the bell, or null to count up. It takes the place of one that is on. */
  startTimer: message('startTimer', {
    seconds: z.int().min(5).max(LONGEST_TIME_S).nullable(),
    what: What.optional(),
  }),
  /** It stands still, or goes on. */
  holdTimer: message('holdTimer', { hold: z.boolean() }),
  moreTime: message('moreTime', { seconds: z.int().min(5).max(3600) }),
  stopTimer: message('stopTimer', {}),
};

export const timerEvents = {
  /** By nobody: the run sheet began it. */
  timerStarted: message('timerStarted', {
    by: MemberId.nullable(),
    seconds: z.number().nullable(),
    what: z.string(),
  }),
  timerHeld: message('timerHeld', { by: MemberId, hold: z.boolean() }),
  timeAdded: message('timeAdded', { by: MemberId, seconds: z.number() }),
  timerStopped: message('timerStopped', { by: MemberId }),
  /** Its time was over. */
  timerRang: message('timerRang', { what: z.string() }),
};
