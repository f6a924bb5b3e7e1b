import { LONGEST_LINE, placeOf, type Place, type RoomState } from '@nimble-bell/core/room';
import { tidyLine } from '@nimble-bell/core/text';
import type { Logger } from 'pino';
import type { MediaRelay } from '../media/relay';
import { memberOf } from '../room/effects/publishers';
import type { Room } from '../room/room';
import type { Rooms } from '../room/rooms';
import type { Captioner, Heard, Listener } from './captioner';

interface Following {
  rooms: Pick<Rooms, 'listen' | 'held'>;
  relay: Pick<MediaRelay, 'onVoice'>;
  log: Logger;
  /** What there is of a line by now, to those who are where it is said. */
  told: (session: string, place: Place, member: string, text: string) => void;
}

/** A class that is listened to: who was heard in it, and where, by their id at the relay. */
interface Listened {
  room: Room;
  listener: Listener;
  voices: Map<string, { place: Place; heard: boolean }>;
}

/** Lets the captioner listen where a teacher wishes it, to those who are in the class, or at its tables, and heard there. */
export function followCaptions(captioner: Captioner, { rooms, relay, log, told }: Following): void {
  const classes = new Map<string, Listened>();

  const heard = async (session: string, { publisher, text, whole }: Heard) => {
    // Where it was said, before anything else can happen.
    const place = classes.get(session)?.voices.get(publisher)?.place;
    const room = await rooms.held(session);
    const member = memberOf(publisher);
    // Who is gone says nothing, and what was begun elsewhere is not of where one is.
    const isHere = (state: RoomState) =>
      Boolean(state.presence.people[member]?.present) && placeOf(state, member) === place;
    if (!place || !room?.state.captions.listens || !isHere(room.state)) return;
    const line = tidyLine(text).slice(0, LONGEST_LINE);
    if (!whole) return told(session, place, member, line);
    told(session, place, member, '');
    if (line)
      await room.happen((state) =>
        isHere(state) ? [{ type: 'captioned', place, by: member, text: line, heard: true }] : [],
      );
  };

  const follow = (room: Room) => {
    const { session, state } = room;
    const on = state.captions.listens && state.bell.phase === 'live';
    const known = classes.get(session);
    if (on && known) return walked(known);
    if (on) {
      const listener = captioner.listen(
        session,
        (words) =>
          void heard(session, words).catch((error: unknown) =>
            log.warn({ why: String(error), session }, 'a caption'),
          ),
      );
      classes.set(session, { room, listener, voices: new Map() });
    } else forget(session);
  };
  const forget = (session: string) => {
    classes.get(session)?.listener.close();
    classes.delete(session);
  };

  rooms.listen({ told: follow, lost: ({ session }) => forget(session) });
  relay.onVoice((session, publisher, on) => {
    const known = classes.get(session);
    if (!known) return;
    const place = placeOf(known.room.state, memberOf(publisher));
    known.voices.set(publisher, { place, heard: on });
    known.listener.voice(publisher, place, on);
  });
}

/** Whoever is elsewhere by now begins anew there. */
function walked({ room, listener, voices }: Listened): void {
  for (const [publisher, voice] of voices) {
    const place = placeOf(room.state, memberOf(publisher));
    if (place === voice.place) continue;
    listener.gone(publisher);
    voice.place = place;
    if (voice.heard) listener.voice(publisher, place, true);
  }
}
