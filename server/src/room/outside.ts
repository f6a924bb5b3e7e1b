import { isStanding } from '@nimble-bell/core/calendar';
import { exceptionEvents, type EventOf, type PersonalLimit, type RoomEvent } from '@nimble-bell/core/room';
import type { Layer, Settings } from '@nimble-bell/core/settings';
import type { Context } from '../context';
import { sessionById, type LayeredSession } from '../courses/store';
import { exceptionsOf } from '../rules/store';
import type { Room } from './room';

/** Who said the latest of these values. */
function latestBy(settings: Settings): string | null {
  const values = Object.values(settings).flatMap((section) => Object.values(section));
  return values.reduce((last, v) => ((v.at ?? 0) > (last?.at ?? -1) ? v : last), values[0])?.by ?? null;
}

/** A room's layers: the notes of a run sheet are for those who teach, and reach no room. */
export const toldLayers = (layers: readonly Layer[]): Layer[] =>
  layers.map(({ name, settings }) => {
    const { segments } = settings.runSheet;
    if (!segments) return { name, settings };
    const value = segments.value.map((s) => ({ ...s, note: '' }));
    return { name, settings: { ...settings, runSheet: { segments: { ...segments, value } } } };
  });

/** What the room of a planned session begins with; a room without dates has no time after its end. */
export const openingOf = ({
  kind,
  startsAt,
  endsAt,
  lingerMinutes,
  layers,
}: LayeredSession): EventOf<'opened'> => ({
  type: 'opened',
  kind,
  times: { startsAt, endsAt, lingerMinutes: isStanding(kind) ? 0 : lingerMinutes },
  layers: toldLayers(layers),
});

/** Neither is why somebody has an exception. */
const personal = ({ member, capability, state, until, by }: PersonalLimit): PersonalLimit => ({
  ...{ member, capability, state, until, by },
});

/**
 * What was changed outside a room while it is open reaches it as events: the settings of its course, series and session,
 * and its times. Asked after every change, and now and then for changes made by another server.
 */
export async function heedOutside(ctx: Context, room: Room): Promise<void> {
  if (room.state.bell.phase === 'dismissed') return;
  const session = await sessionById(ctx.db, room.session);
  // It was planned away: there is no such room any more.
  if (!session) return room.giveUp();
  const { startsAt, endsAt, lingerMinutes, kind } = session;
  const layers = toldLayers(session.layers);
  const exceptions = await exceptionsOf(ctx.db, session.courseId, ctx.now());
  const changes = (state: Room['state']): RoomEvent[] => {
    const events: RoomEvent[] = [];
    for (const { name, settings } of layers) {
      const known = state.limits.layers.find((l) => l.name === name);
      if (known && JSON.stringify(known.settings) !== JSON.stringify(settings))
        events.push({ type: 'settingsChanged', by: latestBy(settings), layer: name, settings });
    }
    const { times } = state.bell;
    const moved =
      times &&
      (times.startsAt !== startsAt || times.endsAt !== endsAt || times.lingerMinutes !== lingerMinutes);
    if (moved && !isStanding(kind))
      events.push({ type: 'replanned', times: { startsAt, endsAt, lingerMinutes } });
    return [...events, ...exceptionEvents(state, exceptions.map(personal), ctx.now())];
  };
  if (changes(room.state).length) await room.happen(changes);
}
