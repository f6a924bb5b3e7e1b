import { z } from 'zod';
import { bellCommands, bellEvents } from '../bell/schema';
import { boardCommands, boardEvents } from '../board/schema';
import { captionsCommands, captionsEvents } from '../captions/schema';
import { deskCommands, deskEvents } from '../desk/schema';
import { doorCommands, doorEvents } from '../door/schema';
import { filmCommands, filmEvents } from '../film/schema';
import { floorCommands, floorEvents } from '../floor/schema';
import { limitsCommands, limitsEvents } from '../limits/schema';
import { pickCommands, pickEvents } from '../pick/schema';
import { presenceCommands, presenceEvents } from '../presence/schema';
import { questionsCommands, questionsEvents } from '../questions/schema';
import { recordingCommands, recordingEvents } from '../recording/schema';
import { runSheetCommands, runSheetEvents } from '../runSheet/schema';
import { signsCommands, signsEvents } from '../signs/schema';
import { slidesCommands, slidesEvents } from '../slides/schema';
import { stageCommands, stageEvents } from '../stage/schema';
import { tablesCommands, tablesEvents } from '../tables/schema';
import { talkCommands, talkEvents } from '../talk/schema';
import { timerCommands, timerEvents } from '../timer/schema';

/** What a person in the room can ask for, by type. The server decides each. */
export const COMMAND_SCHEMAS = {
  ...bellCommands,
  ...presenceCommands,
  ...limitsCommands,
  ...floorCommands,
  ...deskCommands,
  ...stageCommands,
  ...talkCommands,
  ...boardCommands,
  ...recordingCommands,
  ...doorCommands,
  ...runSheetCommands,
  ...signsCommands,
  ...timerCommands,
  ...questionsCommands,
  ...pickCommands,
  ...slidesCommands,
  ...tablesCommands,
  ...filmCommands,
  ...captionsCommands,
};

/** What happens in a room, by type, in today's version. `by` and `member` are members; instants are ms. */
export const EVENT_SCHEMAS = {
  ...bellEvents,
  ...presenceEvents,
  ...limitsEvents,
  ...floorEvents,
  ...deskEvents,
  ...stageEvents,
  ...talkEvents,
  ...boardEvents,
  ...recordingEvents,
  ...doorEvents,
  ...runSheetEvents,
  ...signsEvents,
  ...timerEvents,
  ...questionsEvents,
  ...pickEvents,
  ...slidesEvents,
  ...tablesEvents,
  ...filmEvents,
  ...captionsEvents,
};

export type CommandType = keyof typeof COMMAND_SCHEMAS;
export type CommandOf<K extends CommandType> = z.infer<(typeof COMMAND_SCHEMAS)[K]>;
export type RoomCommand = { [K in CommandType]: CommandOf<K> }[CommandType];

export type EventType = keyof typeof EVENT_SCHEMAS;
export type EventOf<K extends EventType> = z.infer<(typeof EVENT_SCHEMAS)[K]>;
export type RoomEvent = { [K in EventType]: EventOf<K> }[EventType];

/** An event's place in the room's order, and its instant. */
interface Placed {
  seq: number;
  at: number;
}
export type StoredOf<K extends EventType> = EventOf<K> & Placed;
export type StoredEvent = { [K in EventType]: StoredOf<K> }[EventType];

const commands = Object.values(COMMAND_SCHEMAS) as unknown as [z.ZodObject, ...z.ZodObject[]];
export const RoomCommand = z.discriminatedUnion(
  'type',
  commands as never,
) as unknown as z.ZodType<RoomCommand>;
