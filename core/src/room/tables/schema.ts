import { z } from 'zod';
import { SomeLimits } from '../../limits/schema';
import { line, prose } from '../../text/index';
import { MaterialId, MemberId, message, Place } from '../kernel/schema';
import { LONGEST_TIME_S } from '../timer/state';
import { MOST_FILES, MOST_TABLES } from './state';

const Seats = z.array(MemberId).max(1000);
const Seconds = z.int().min(10).max(LONGEST_TIME_S);
const Task = prose(1000);
/** Files of the class that are for what is to be done: by their names, as they are told. */
const Files = z.array(z.object({ material: MaterialId, name: z.string().min(1).max(160) })).max(MOST_FILES);

export const tablesCommands = {
  /**
   * Lays tables and takes everybody to theirs; who is at none is seated where there are fewest. `limits`: what students may
   * there, where it is not as in the class; by the rule sheet of this name. `choose`: everybody chooses a table by themselves.
   */
  layTables: message('layTables', {
    tables: z
      .array(z.object({ name: line('A table has a name.', 60), members: Seats }))
      .min(1)
      .max(MOST_TABLES),
    seconds: Seconds.nullable(),
    task: Task.optional(),
    files: Files.optional(),
    limits: SomeLimits,
    sheet: line('A rule sheet has a name.', 120).optional(),
    choose: z.literal(true).optional(),
  }),
  /** Another's seat is at this table from now on, or in the class. */
  seatAt: message('seatAt', { member: MemberId, place: Place }),
  /** Goes to a table, or back to the class: whoever teaches walks around, students choose where they may. */
  goTo: message('goTo', { place: Place }),
  wordToTables: message('wordToTables', {
    text: z.string().trim().min(1, 'Write something first.').max(400, 'At most 400 characters.'),
  }),
  /** One's table asks for a teacher, or no more. */
  callHelp: message('callHelp', { on: z.boolean() }),
  moreTableTime: message('moreTableTime', { seconds: Seconds }),
  /** Everybody is back in half a minute, or at once. */
  endTables: message('endTables', { now: z.literal(true).optional() }),
};

export const tablesEvents = {
  tablesLaid: message('tablesLaid', {
    by: MemberId,
    tables: z.array(z.object({ place: Place, name: z.string(), members: Seats })),
    until: z.number().nullable(),
    task: z.string(),
    files: Files,
    limits: SomeLimits,
    sheet: z.string(),
    choose: z.boolean(),
    paused: z.boolean(),
    recorded: z.boolean(),
  }),
  /** Somebody's seat is at this table from now on; by themselves, where they chose it. */
  seated: message('seated', { by: MemberId, member: MemberId, place: Place }),
  tablesTold: message('tablesTold', { by: MemberId, text: z.string() }),
  helpCalled: message('helpCalled', { place: Place, on: z.boolean() }),
  tableTimeSet: message('tableTimeSet', { by: MemberId, until: z.number() }),
  /** Everybody is back soon; by nobody where the time is nearly over. */
  backSoon: message('backSoon', { by: MemberId.nullable(), until: z.number() }),
  /** Everybody is back; by nobody where the time was over. */
  tablesCleared: message('tablesCleared', { by: MemberId.nullable() }),
};
