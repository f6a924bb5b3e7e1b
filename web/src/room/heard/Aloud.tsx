import { VisuallyHidden } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { useInside, useMe, useNameOf, useTableName, useTeaching, type Inside } from '../live/useRoom';
import { writtenHere } from '../tools/talk/here';
import { heardBetween, type Heard } from './hearing';

/** What comes within this is said together. */
const GATHER_MS = 1200;
/** As many as can be looked back at. */
const KEPT = 8;

const select = ({ room, info }: Inside): Heard => ({
  hands: room.floor.hands,
  messages: writtenHere(room, info.me.member),
  knocks: room.door.knocks,
  calls: room.tables.laid?.calls ?? NONE,
});
const NONE: Heard['calls'] = [];
const same = (a: Heard, b: Heard) =>
  a.hands === b.hands &&
  a.messages.at(-1)?.seq === b.messages.at(-1)?.seq &&
  a.knocks === b.knocks &&
  a.calls === b.calls;

/** Says politely what somebody who looks at the room sees: hands, and what is written to one. */
export function Aloud() {
  const heard = useInside(select, same);
  const { member: me } = useMe();
  const teaching = useTeaching();
  const nameOf = useNameOf();
  const [said, setSaid] = useState<readonly { id: number; words: string }[]>([]);
  const before = useRef(heard);
  const tableName = useTableName();
  const latest = useRef({ heard, hearer: { me, teaching, nameOf, tableName } });
  useEffect(() => {
    latest.current = { heard, hearer: { me, teaching, nameOf, tableName } };
  });
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => {
    if (timer.current !== null || same(before.current, heard)) return;
    timer.current = setTimeout(() => {
      timer.current = null;
      const { heard: now, hearer } = latest.current;
      const fresh = heardBetween(before.current, now, hearer);
      before.current = now;
      if (fresh.length)
        setSaid((all) => {
          const next = (all.at(-1)?.id ?? 0) + 1;
          return [...all, ...fresh.map((words, i) => ({ id: next + i, words }))].slice(-KEPT);
        });
    }, GATHER_MS);
  }, [heard]);
  useEffect(() => () => void (timer.current !== null && clearTimeout(timer.current)), []);
  return (
    <VisuallyHidden component="section" aria-label="Said lately">
      <div aria-live="polite" aria-relevant="additions" data-testid="aloud">
        {said.map(({ id, words }) => (
          <p key={id}>{words}</p>
        ))}
      </div>
    </VisuallyHidden>
  );
}
