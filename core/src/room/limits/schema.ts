import { Capability, Permission } from '../../limits/schema';
import { MemberId, message } from '../kernel/schema';

export const limitsCommands = {
  setLimit: message('setLimit', { capability: Capability, state: Permission }),
  hush: message('hush', {}),
  lift: message('lift', {}),
};

export const limitsEvents = {
  limitSet: message('limitSet', { by: MemberId, capability: Capability, state: Permission }),
  hushed: message('hushed', { by: MemberId }),
  lifted: message('lifted', { by: MemberId }),
};
