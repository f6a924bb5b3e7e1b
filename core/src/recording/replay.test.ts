import fc from 'fast-check';
import { evolve, newRoom } from '../room/index';
import { anyStep, lecture } from '../testing/index';
import { positionOf, Replay } from './index';

test('wherever one jumps to, the room is what the events up to there make of it', () => {
  fc.assert(
    fc.property(
      fc.array(anyStep, { minLength: 20, maxLength: 60 }),
      fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 12 }),
      (steps, jumps) => {
        const room = lecture({ speak: 'open', writeToClass: 'open', draw: 'open' });
        for (let i = 0; i < 12; i++) for (const [actor, command] of steps) room.do(actor, command);
        const end = room.events.at(-1)!.at;
        const parts = [
          { from: 3000, until: end / 2 },
          { from: end / 2 + 5000, until: end },
        ];
        const replay = new Replay(room.events, parts);
        for (const jump of jumps) {
          const position = jump * end;
          const plainly = room.events
            .filter((e) => positionOf(parts, e.at) <= position)
            .reduce(evolve, newRoom());
          expect(replay.at(position)).toEqual(plainly);
        }
      },
    ),
    { numRuns: 25 },
  );
});
