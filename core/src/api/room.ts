import { z } from 'zod';
import type { Layer } from '../limits/resolve';
import type { SessionInfo } from './http';
import { Capability, Permission, Role } from './limits';

const MemberId = z.string().min(1).max(40);
const Text = z.string().trim().min(1, 'Write something first.').max(4000, 'At most 4,000 characters.');

export const Addressee = z.discriminatedUnion('to', [
  z.object({ to: z.literal('class') }),
  z.object({ to: z.literal('teachers') }),
  z.object({ to: z.literal('member'), member: MemberId }),
]);
export type Addressee = z.infer<typeof Addressee>;

const Coordinate = z.number().min(0).max(1);

/** A pen stroke; points are fractions of the board's width and height, x and y in turn. */
export const Stroke = z.object({
  points: z.array(Coordinate).min(2).max(4000),
  colour: z.enum(['ink', 'pine', 'brass', 'clay', 'tide']),
});
export type Stroke = z.infer<typeof Stroke>;

/** What a person in the room can ask for. The server decides each. */
export const RoomCommand = z.discriminatedUnion('type', [
  z.object({ type: z.literal('ringIn') }),
  z.object({ type: z.literal('dismiss') }),
  z.object({ type: z.literal('setLimit'), capability: Capability, state: Permission }),
  z.object({ type: z.literal('hush') }),
  z.object({ type: z.literal('lift') }),
  z.object({ type: z.literal('mute'), member: MemberId }),
  z.object({ type: z.literal('muteAll') }),
  z.object({ type: z.literal('giveFloor'), member: MemberId }),
  z.object({ type: z.literal('takeFloor') }),
  z.object({ type: z.literal('raiseHand') }),
  z.object({ type: z.literal('lowerHand'), member: MemberId }),
  z.object({ type: z.literal('microphone'), on: z.boolean() }),
  z.object({ type: z.literal('camera'), on: z.boolean() }),
  z.object({ type: z.literal('present'), on: z.boolean() }),
  z.object({ type: z.literal('say'), addressee: Addressee, text: Text }),
  z.object({ type: z.literal('draw'), stroke: Stroke }),
  z.object({ type: z.literal('clearBoard') }),
  z.object({ type: z.literal('pauseRecording') }),
  z.object({ type: z.literal('resumeRecording') }),
]);
export type RoomCommand = z.infer<typeof RoomCommand>;
export type RoomCommandType = RoomCommand['type'];

/** What happened in the room. `by` and `member` are members; `at` is an instant in ms. */
export const RoomEvent = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('entered'),
    member: MemberId,
    name: z.string(),
    role: Role,
    /** What a guest may do whatever the limits say, chosen when they were asked in. */
    grants: z.array(Capability).optional(),
  }),
  z.object({ type: z.literal('left'), member: MemberId }),
  z.object({ type: z.literal('rangIn'), by: MemberId }),
  z.object({ type: z.literal('dismissed'), by: MemberId.nullable() }),
  z.object({ type: z.literal('limitSet'), by: MemberId, capability: Capability, state: Permission }),
  z.object({ type: z.literal('hushed'), by: MemberId }),
  z.object({ type: z.literal('lifted'), by: MemberId }),
  z.object({ type: z.literal('muted'), by: MemberId, member: MemberId.nullable() }),
  z.object({ type: z.literal('floorGiven'), by: MemberId, member: MemberId }),
  z.object({ type: z.literal('floorTaken'), by: MemberId, member: MemberId }),
  z.object({ type: z.literal('handRaised'), member: MemberId }),
  z.object({ type: z.literal('handLowered'), by: MemberId, member: MemberId }),
  z.object({ type: z.literal('microphone'), member: MemberId, on: z.boolean() }),
  z.object({ type: z.literal('camera'), member: MemberId, on: z.boolean() }),
  z.object({ type: z.literal('presenting'), member: MemberId, on: z.boolean() }),
  z.object({ type: z.literal('said'), from: MemberId, addressee: Addressee, text: z.string() }),
  z.object({ type: z.literal('drawn'), by: MemberId, stroke: Stroke }),
  z.object({ type: z.literal('boardCleared'), by: MemberId }),
  z.object({ type: z.literal('recordingStarted'), by: MemberId.nullable() }),
  z.object({ type: z.literal('recordingPaused'), by: MemberId }),
  z.object({ type: z.literal('recordingResumed'), by: MemberId }),
  /** The server was away: nobody was in the room from then until this event. */
  z.object({ type: z.literal('interrupted'), from: z.number() }),
]);
export type RoomEvent = z.infer<typeof RoomEvent>;

/** An event as it was stored: its place in the room's order and its instant. */
export type StoredEvent = RoomEvent & { seq: number; at: number };

export const CommandMessage = z.object({ id: z.uuid(), command: RoomCommand });
export const EnterMessage = z.object({ session: z.string().max(40), after: z.int().min(0).default(0) });
export const SdpMessage = z.object({ sdp: z.string().max(60_000) });

export interface Refusal {
  code: string;
  message: string;
}
export type CommandReply = { ok: true; seq: number } | { ok: false; refusal: Refusal };

/** What a page needs of a room besides its events. */
export interface RoomInfo {
  session: SessionInfo;
  course: { id: string; code: string; title: string };
  zone: string;
  me: { member: string; role: Role };
  /** The whole class list, the absent too. */
  people: { member: string; name: string; role: Role; group: string | null }[];
  base: Layer[];
  relay: boolean;
  /** Whether ring-in starts a recording. */
  records: boolean;
}

export type EnterReply =
  | { ok: true; info: RoomInfo; events: StoredEvent[]; seq: number; now: number }
  | { ok: false; refusal: Refusal };

/** Where a media section of a viewer's connection belongs. */
export interface RelayOffer {
  sdp: string;
  streams: { mid: string; member: string; kind: 'sound' | 'camera' | 'screen' }[];
}
