import { narrowedBy } from '@nimble-bell/core/room';
import type { Context } from '../../context';
import type { Rooms } from '../../room/rooms';
import { freeFor } from './free';

const LOOK_MS = 5000;

/** While classes are recorded the disk is looked at: before it is full pictures are given up, and at last the sound. */
export function watchSpace(ctx: Context, rooms: Rooms): NodeJS.Timeout {
  let looking = false;
  const look = async () => {
    const recorded = (await rooms.all()).filter((r) => r.state.recording.state !== 'off');
    if (!recorded.length) return;
    const free = await freeFor(ctx);
    for (const room of recorded) await room.happen((state) => narrowedBy(state, free));
  };
  return setInterval(() => {
    if (looking) return;
    looking = true;
    void look()
      .catch((error: unknown) => ctx.log.warn({ why: String(error) }, 'the disk could not be looked at'))
      .finally(() => (looking = false));
  }, LOOK_MS);
}
