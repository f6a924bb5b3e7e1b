import { z } from 'zod';
import { MemberId, message } from '../kernel/schema';

export const deskCommands = {
  microphone: message('microphone', { on: z.boolean() }),
  camera: message('camera', { on: z.boolean() }),
  /** One only listens, and is not asked to speak; or no more. */
  onlyListen: message('onlyListen', { on: z.boolean() }),
  mute: message('mute', { member: MemberId }),
  /** `again` is whether those who are muted may switch on again by themselves. */
  muteAll: message('muteAll', { again: z.boolean().optional() }),
  /** Asks one to switch their microphone on: nobody can do it for them. */
  askOn: message('askOn', { member: MemberId }),
};

export const deskEvents = {
  microphone: message('microphone', { member: MemberId, on: z.boolean() }),
  camera: message('camera', { member: MemberId, on: z.boolean() }),
  onlyListens: message('onlyListens', { member: MemberId, on: z.boolean() }),
  askedOn: message('askedOn', { by: MemberId, member: MemberId }),
  /** One person, or every student where it names none. */
  muted: message('muted', { by: MemberId, member: MemberId.nullable() }),
};
