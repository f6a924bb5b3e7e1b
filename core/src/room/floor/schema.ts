import { z } from 'zod';
import { MemberId, message } from '../kernel/schema';

export const floorCommands = {
  /** `minutes`: it ends by itself after so many. */
  giveFloor: message('giveFloor', { member: MemberId, minutes: z.int().min(1).max(60).optional() }),
  takeFloor: message('takeFloor', {}),
  raiseHand: message('raiseHand', {}),
  lowerHand: message('lowerHand', { member: MemberId }),
  lowerAll: message('lowerAll', {}),
};

export const floorEvents = {
  floorGiven: message('floorGiven', { by: MemberId, member: MemberId, minutes: z.number().optional() }),
  /** By nobody: its time was over. */
  floorTaken: message('floorTaken', { by: MemberId.nullable(), member: MemberId }),
  handRaised: message('handRaised', { member: MemberId }),
  handLowered: message('handLowered', { by: MemberId, member: MemberId }),
};
