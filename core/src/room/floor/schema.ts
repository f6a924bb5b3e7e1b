import { MemberId, message } from '../kernel/schema';

export const floorCommands = {
  giveFloor: message('giveFloor', { member: MemberId }),
  takeFloor: message('takeFloor', {}),
  raiseHand: message('raiseHand', {}),
  lowerHand: message('lowerHand', { member: MemberId }),
};

export const floorEvents = {
  floorGiven: message('floorGiven', { by: MemberId, member: MemberId }),
  floorTaken: message('floorTaken', { by: MemberId, member: MemberId }),
  handRaised: message('handRaised', { member: MemberId }),
  handLowered: message('handLowered', { by: MemberId, member: MemberId }),
};
