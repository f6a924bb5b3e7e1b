import { CLASS, LONGEST_LINE, placeOf, type StoredEvent } from '@nimble-bell/core/room';
import { tidyLine } from '@nimble-bell/core/text';
import type { Logger } from 'pino';
import type { MediaRelay } from '../media/relay';
import { memberOf } from '../room/effects/publishers';
import type { Room } from '../room/room';
import type { Rooms } from '../room/rooms';
import type { Captioner, Heard, Listener } from './captioner';

/** What changes whether a class is listened to. */
const CHANGES: ReadonlySet<StoredEvent['type']> = new Set(['listening', 'dismissed', 'interrupted']);

interface Following {
  rooms: Pick<Rooms, 'listen' | 'held'>;
  relay: Pick<MediaRelay, 'onVoice'>;
  log: Logger;
  /** What there is of a line by now, to those in the class. */
  told: (session: string, member: string, text: string) => void;
}

/** Lets the captioner listen where a teacher wishes it, to those who are in the class and heard there. */
export function followCaptions(captioner: Captioner, { rooms, relay, log, told }: Following): void {
  const listeners = new Map<string, Listener>();

  const heard = async (session: string, { publisher, text, whole }: Heard) => {
    const room = await rooms.held(session);
    const member = memberOf(publisher);
    // At a table one is not in the class; and who is gone says nothing.
    if (!room?.state.captions.listens || !isHeard(room, member)) return;
    const line = tidyLine(text).slice(0, LONGEST_LINE);
    if (!whole) return told(session, member, line);
    told(session, member, '');
    if (line) await room.happen(() => [{ type: 'captioned', by: member, text: line, heard: true }]);
  };

  const follow = ({ session, state: { bell, captions } }: Room) => {
    const on = captions.listens && bell.phase === 'live';
    const known = listeners.get(session);
    if (on && !known)
      listeners.set(
        session,
        captioner.listen(
          session,
          (words) =>
            void heard(session, words).catch((error: unknown) =>
              log.warn({ why: String(error), session }, 'a caption'),
            ),
        ),
      );
    if (on || !known) return;
    known.close();
    listeners.delete(session);
  };

  rooms.listen({
    told: (room, events) => {
      if (events.some((e) => CHANGES.has(e.type))) follow(room);
    },
    lost: ({ session }) => {
      listeners.get(session)?.close();
      listeners.delete(session);
    },
  });
  relay.onVoice((session, publisher, on) => listeners.get(session)?.voice(publisher, on));
}

const isHeard = ({ state }: Room, member: string): boolean =>
  Boolean(state.presence.people[member]?.present) && placeOf(state, member) === CLASS;
