import { z } from 'zod';
import { KEPT } from '../../recording/space';
import { MemberId, message } from '../kernel/schema';

export const recordingCommands = {
  /** Begins what waits for a hand, or would begin later. */
  startRecording: message('startRecording', {}),
  pauseRecording: message('pauseRecording', {}),
  resumeRecording: message('resumeRecording', {}),
  /** Whether one's own voice, picture and words are kept. */
  answerRecording: message('answerRecording', { agrees: z.boolean() }),
};

export const recordingEvents = {
  /** `by` is null where the plan began it. */
  recordingStarted: message('recordingStarted', { by: MemberId.nullable() }),
  /** `by` is null where the clock gave the cue that does it. */
  recordingPaused: message('recordingPaused', { by: MemberId.nullable() }),
  recordingResumed: message('recordingResumed', { by: MemberId.nullable() }),
  /** The disk has room for less than before, or for more again. */
  recordingNarrowed: message('recordingNarrowed', { to: z.enum(KEPT) }),
  recordingAnswered: message('recordingAnswered', { member: MemberId, agrees: z.boolean() }),
};
