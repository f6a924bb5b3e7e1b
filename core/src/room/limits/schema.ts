import { z } from 'zod';
import { Capability, Permission, SomeLimits } from '../../limits/schema';
import { line } from '../../text/index';
import { MemberId, message, Place } from '../kernel/schema';

export const limitsCommands = {
  setLimit: message('setLimit', { capability: Capability, state: Permission }),
  /** Open for a while, and then again as it was; writing to the class sooner, once so many students have written. */
  openFor: message('openFor', {
    capability: Capability,
    seconds: z.int().min(5).max(600),
    answers: z.int().min(1).max(1000).optional(),
  }),
  closeAgain: message('closeAgain', {}),
  /** What one may at the table where one is, or, in the class, at all of them; by a rule sheet, where it has one's name. */
  limitTables: message('limitTables', {
    limits: SomeLimits,
    sheet: line('A rule sheet has a name.', 120).optional(),
  }),
  hush: message('hush', {}),
  lift: message('lift', {}),
};

export const limitsEvents = {
  limitSet: message('limitSet', { by: MemberId, capability: Capability, state: Permission }),
  limitLent: message('limitLent', {
    by: MemberId,
    capability: Capability,
    until: z.number(),
    answers: z.number().optional(),
  }),
  /** By itself where nobody did it. */
  lentBack: message('lentBack', { by: MemberId.nullable(), capability: Capability }),
  /** The planned end has come, and writing has a rule of its own for that time. */
  lingerBegan: message('lingerBegan', {}),
  /** In the class: at all tables. `sheet` is the name of the rule sheet that says so; empty where none does. */
  tablesLimited: message('tablesLimited', {
    by: MemberId,
    place: Place,
    limits: SomeLimits,
    sheet: z.string(),
  }),
  hushed: message('hushed', { by: MemberId }),
  /** What one person may, or may not, whatever the class may; until an instant, or without end. */
  excepted: message('excepted', {
    by: MemberId.nullable(),
    member: MemberId,
    capability: Capability,
    state: Permission,
    until: z.number().nullable(),
  }),
  /** By itself where its time was over. */
  exceptionEnded: message('exceptionEnded', {
    by: MemberId.nullable(),
    member: MemberId,
    capability: Capability,
    /** What it was. */
    state: Permission,
  }),
  lifted: message('lifted', { by: MemberId }),
};
