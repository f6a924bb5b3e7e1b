import { evolve, newRoom, type StoredEvent } from '../room/index';
import { common, joined } from './stretches';
import type { Stretch } from './mixing';
import { sees } from '../room/sight';
import { lengthOf, positionOf, type Part } from './timeline';
import type { Watcher } from './withheld';

/** Who has the floor for less than this is not shown for it, ms. */
const WORTH_MS = 1000;

/**
 * Where each student's camera belongs in a recording, ms of it: while they have the floor, of those who agreed to be in it
 * when that was said. Who agreed before, or answered nothing, is heard and not seen.
 */
export function camerasKept(events: readonly StoredEvent[], parts: readonly Part[]): Map<string, Stretch[]> {
  const floor = new Map<string, Stretch[]>();
  const agreed = new Set<string>();
  let room = newRoom();
  let holding: { member: string; from: number } | null = null;
  const goOn = (member: string | null, at: number) => {
    if (holding?.member === member) return;
    if (holding) {
      const { member: before, from } = holding;
      floor.set(before, [...(floor.get(before) ?? []), { from, until: positionOf(parts, at) }]);
    }
    holding = member === null ? null : { member, from: positionOf(parts, at) };
  };
  for (const event of events) {
    room = evolve(room, event);
    const { cameras } = room.recording;
    if (event.type === 'recordingAnswered') {
      if (event.agrees && cameras) agreed.add(event.member);
      else agreed.delete(event.member);
    }
    goOn(cameras ? room.floor.holder : null, event.at);
  }
  goOn(null, Infinity);
  const whole = [{ from: 0, until: lengthOf(parts) }];
  return new Map(
    [...floor].flatMap(([member, held]) => {
      const shown = common(joined(held), whole).filter((s) => s.until - s.from >= WORTH_MS);
      return agreed.has(member) && shown.length ? [[member, shown] as const] : [];
    }),
  );
}

/** Whether somebody could see the others, by name and camera, as long as class was on: only then are they seen afterwards. */
export function sawOthers(events: readonly StoredEvent[], watcher: Watcher): boolean {
  let room = newRoom();
  return events.every((event) => {
    room = evolve(room, event);
    return (
      room.bell.phase !== 'live' || (sees(room, watcher, 'seeNames') && sees(room, watcher, 'seeCameras'))
    );
  });
}
