import { useMemo } from 'react';
import { placeOf, type Message, type RoomState } from '@nimble-bell/core/room';
import { useInside, usePlace, type Inside } from '../../live/useRoom';

/** What is written where one is: those who teach hear every table, and read the one at which they are. */
export const writtenAt = (messages: readonly Message[], place: string): readonly Message[] =>
  messages.every((m) => isAt(m, place)) ? messages : messages.filter((m) => isAt(m, place));

const isAt = (m: Message, place: string) => m.addressee.to !== 'class' || m.place === place;

export const writtenHere = (room: RoomState, me: string) => writtenAt(room.talk.messages, placeOf(room, me));

const selectTalk = ({ room }: Inside) => room.talk;

export function useTalkHere() {
  const talk = useInside(selectTalk, Object.is);
  const place = usePlace();
  return useMemo(() => ({ ...talk, messages: writtenAt(talk.messages, place), place }), [talk, place]);
}
