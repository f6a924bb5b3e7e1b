import { z } from 'zod';
import { MemberId, message } from '../kernel/schema';

export const deskCommands = {
  microphone: message('microphone', { on: z.boolean() }),
  camera: message('camera', { on: z.boolean() }),
  mute: message('mute', { member: MemberId }),
  muteAll: message('muteAll', {}),
};

export const deskEvents = {
  microphone: message('microphone', { member: MemberId, on: z.boolean() }),
  camera: message('camera', { member: MemberId, on: z.boolean() }),
  /** One person, or every student where it names none. */
  muted: message('muted', { by: MemberId, member: MemberId.nullable() }),
};
