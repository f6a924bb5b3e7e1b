import { Anchor, Group, Loader, NativeSelect, Text } from '@mantine/core';
import { useEffect, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import type { SeenAs } from '@nimble-bell/core/api';
import { stopOf, useAsked } from '../app/queries';
import { RoomFrame } from '../room/RoomPage';
import { Looking } from '../room/live/looking';
import { RoomContext } from '../room/live/useRoom';
import { Fault } from '../ui/Fault';
import classes from './seenAs.module.css';

/** A student's own room, only looked at: as the class is now, or as it will be at a part of its run sheet. */
export function SeenAsPage() {
  const { session, member } = useParams();
  const [search] = useSearchParams();
  const part = search.get('part') ?? '0';
  const seen = useAsked<SeenAs>(`/sessions/${session}/as/${member}?part=${part}`, {
    keep: true,
    every: (known) => (known?.live ? 1500 : 15_000),
  });
  const stop = stopOf(seen);
  if (stop) return <Fault error={stop} />;
  if (!seen.data) return <Loader aria-label="Looking up their room" />;
  return <Seen seen={seen.data} part={part} />;
}

function Seen({ seen, part }: { seen: SeenAs; part: string }) {
  const [, setSearch] = useSearchParams();
  const { info, live, parts } = seen;
  const name = info.people.find((p) => p.member === info.me.member)!.name;
  const [looking] = useState(() => new Looking(seen));
  useEffect(() => looking.show(seen), [looking, seen]);
  return (
    <div className={classes.page}>
      <Group className={classes.bar} role="region" aria-label="Whose page this is" gap="md" wrap="nowrap">
        <Text fw={600}>As {name} has it</Text>
        <Text size="sm" className={classes.about}>
          {live
            ? 'The class is on. You only look.'
            : 'As the class will be, with everybody in it. You only look.'}
        </Text>
        {!live && parts.length > 0 && (
          <NativeSelect
            size="xs"
            aria-label="Part of the run sheet"
            value={part}
            data={parts.map((title, i) => ({ value: String(i), label: title }))}
            onChange={(e) => setSearch({ part: e.currentTarget.value }, { replace: true })}
          />
        )}
        <Anchor
          component={Link}
          to={`/course/${info.course.id}/limits/proof?of=${info.session.id}&part=${part}`}
        >
          Back to the proof
        </Anchor>
      </Group>
      <RoomContext value={looking.tools}>
        <RoomFrame />
      </RoomContext>
    </div>
  );
}
