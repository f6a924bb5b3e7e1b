import path from 'node:path';
import { LINE_WORDS } from '@nimble-bell/core/telephone';
import type { Rooms } from '../room/rooms';
import { Caller, type CallerParts } from './caller';
import type { TelephoneGateway } from './gateway';
import { Prompts } from './prompts';
import { Voice } from './voice';

/** As many lines are open at a server at once. */
const MOST_CALLS = 200;

/** Takes the calls of a gateway, and tells each caller what happens in their class. Must listen before the attendance does. */
export function takeCalls(
  gateway: TelephoneGateway,
  rooms: Rooms,
  parts: CallerParts,
  prompts = new Prompts(path.join(parts.ctx.config.dataDir, 'prompts')),
) {
  const { ctx, relay } = parts;
  const callers = new Map<string, Caller>();
  gateway.onCall((call) => {
    const refused = !relay.available ? LINE_WORDS.away : callers.size >= MOST_CALLS ? LINE_WORDS.busy : null;
    if (refused) {
      call.spoken(refused);
      return call.hangUp();
    }
    const voice = new Voice(call.id, relay, prompts, ctx.log, (words) => call.spoken(words));
    const caller = new Caller(call, parts, voice);
    callers.set(call.id, caller);
    call.onEnd(() => callers.delete(call.id));
    void caller.begin();
  });
  // A line that the relay has forgotten is silent for good.
  relay.onChange((available) => {
    if (!available) for (const { call } of callers.values()) call.hangUp();
  });
  rooms.listen({
    told: (room, events) => {
      for (const caller of callers.values()) caller.hear(room, events);
    },
  });
}
