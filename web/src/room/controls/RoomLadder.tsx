import { useMemo } from 'react';
import type { Capability } from '@nimble-bell/core/api';
import { clockWords, instantWords } from '@nimble-bell/core/calendar';
import { ladderOf, type Rung } from '@nimble-bell/core/limits';
import { layersOf, tableLimits } from '@nimble-bell/core/room';
import { Ladder } from '../../ui/Ladder';
import { useInfo, useInside, useNameOf, useTeaching, type Inside } from '../live/useRoom';
import classes from './why.module.css';

const sameRungs = (a: readonly Rung[], b: readonly Rung[]) => JSON.stringify(a) === JSON.stringify(b);

/** Where a layer is set, among the parts of the limits; beside the class, which goes on. */
const WAYS: Partial<Record<Rung['layer'], string>> = {
  course: 'term',
  series: 'term',
  session: 'term',
  cue: 'run-sheets',
  person: 'exceptions',
};

/** The layers of one capability as they are in the room now. */
export default function RoomLadder({ capability }: { capability: Capability }) {
  const select = useMemo(
    () =>
      ({ room, info }: Inside) =>
        ladderOf(layersOf(room, tableLimits(room, info.me.member)), capability),
    [capability],
  );
  const rungs = useInside(select, sameRungs);
  const nameOf = useNameOf();
  const { zone, course } = useInfo();
  const who = ({ layer, by, at }: Rung) => {
    const when =
      at && at > 1
        ? layer === 'live' || layer === 'hush'
          ? clockWords(at, zone)
          : instantWords(at, zone)
        : null;
    return [by && nameOf(by), when].filter(Boolean).join(', ');
  };
  const teaching = useTeaching();
  const way = ({ layer, inForce }: Rung) =>
    teaching && inForce && WAYS[layer] ? (
      <a
        className={classes.way}
        href={`/course/${course.id}/limits/${WAYS[layer]}`}
        target="_blank"
        rel="noreferrer"
      >
        Where it is set
      </a>
    ) : null;
  return <Ladder rungs={rungs} who={who} way={way} />;
}
