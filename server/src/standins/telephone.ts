import type { Server } from 'socket.io';
import { z } from 'zod';
import { isKey, type TelephoneKey } from '@nimble-bell/core/telephone';
import { newId } from '../context';
import type { IncomingCall, TelephoneGateway } from '../telephone/gateway';

const Dial = z.object({ dialled: z.string().trim().max(40), caller: z.string().trim().max(40).nullable() });
const Sdp = z.object({ sdp: z.string().max(60_000) });
/** A page answers for its telephone within this long, ms. */
const ANSWERS_MS = 10_000;
/** A telephone's keys, pressed as fast as a hand can. */
const KEYS_A_SECOND = 12;

/** A telephone gateway of pages that are telephones: the line, the keys and the words go by Socket.IO, sound by the relay. */
export function standInTelephone(io: Pick<Server, 'of'>): TelephoneGateway {
  const listeners: ((call: IncomingCall) => void)[] = [];
  io.of('/telephone').on('connection', (socket) => {
    socket.once('dial', (body: unknown) => {
      const dial = Dial.safeParse(body);
      if (!dial.success) return void socket.disconnect(true);
      const keys: ((key: TelephoneKey) => void)[] = [];
      const ends: (() => void)[] = [];
      let inSecond = 0;
      const calm = setInterval(() => (inSecond = 0), 1000);
      socket.on('key', (key: unknown) => {
        if (isKey(key) && ++inSecond <= KEYS_A_SECOND) for (const listener of keys) listener(key);
      });
      socket.on('disconnect', () => {
        clearInterval(calm);
        for (const listener of ends) listener();
      });
      const sound = async (what: 'hears' | 'says', answer: (offer: string) => Promise<string>) => {
        const { sdp } = Sdp.parse(await socket.timeout(ANSWERS_MS).emitWithAck('offer', { what }));
        socket.emit('answer', { what, sdp: await answer(sdp) });
      };
      const call: IncomingCall = {
        id: `call-${newId()}`,
        ...dial.data,
        onKey: (listener) => void keys.push(listener),
        onEnd: (listener) => void ends.push(listener),
        hears: (answer) => sound('hears', answer),
        says: (answer) => sound('says', answer),
        spoken: (words) => void socket.emit('spoken', { words }),
        again: (session, keys) => {
          socket.emit('again', { session, keys });
          socket.disconnect(true);
        },
        hangUp: () => void socket.disconnect(true),
      };
      for (const listener of listeners) listener(call);
    });
  });
  return { onCall: (listener) => void listeners.push(listener) };
}
