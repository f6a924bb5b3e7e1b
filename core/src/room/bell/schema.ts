import { z } from 'zod';
import { SeriesKind } from '../../calendar/schema';
import { LayerName, Settings } from '../../settings/index';
import { MemberId, message } from '../kernel/schema';

/** What a room has to know of its session: instants in ms, `lingerMinutes` after the end. */
export const PlannedTimes = z.object({
  startsAt: z.number(),
  endsAt: z.number(),
  lingerMinutes: z.number(),
});
export type PlannedTimes = z.infer<typeof PlannedTimes>;

export const bellCommands = {
  ringIn: message('ringIn', {}),
  dismiss: message('dismiss', {}),
  /** The class is over; the room stays open for whoever has a question. Or it goes on after all. */
  letGo: message('letGo', { on: z.boolean() }),
  /** Another who teaches goes on in one's place. */
  handOver: message('handOver', { to: MemberId }),
  /** Everybody is told how much time is left. */
  tellTimeLeft: message('tellTimeLeft', { minutes: z.int().min(1).max(60) }),
};

export const bellEvents = {
  /** The first event of a room: all it began with. Nothing in a room's state is read from elsewhere. */
  opened: message('opened', {
    kind: SeriesKind,
    times: PlannedTimes,
    layers: z.array(z.object({ name: LayerName, settings: Settings })).max(10),
    /** How often each was asked by lot in this course before. */
    asked: z.record(MemberId, z.number()).optional(),
  }),
  /** What a layer says was changed outside the room, while it was open. */
  settingsChanged: message('settingsChanged', {
    by: MemberId.nullable(),
    layer: LayerName,
    settings: Settings,
  }),
  /** The session was given other times while its room was open. */
  replanned: message('replanned', { times: PlannedTimes }),
  /** `by` is null where an always-open room began by itself. */
  rangIn: message('rangIn', { by: MemberId.nullable() }),
  letGo: message('letGo', { by: MemberId, on: z.boolean() }),
  handedOver: message('handedOver', { by: MemberId, to: MemberId }),
  timeLeftTold: message('timeLeftTold', { by: MemberId, minutes: z.number() }),
  dismissed: message('dismissed', { by: MemberId.nullable() }),
  /** The server was away: nobody was in the room from then until this event. */
  interrupted: message('interrupted', { from: z.number() }),
};
