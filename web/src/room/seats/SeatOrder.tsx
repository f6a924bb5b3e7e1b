import { ActionIcon, Button, Stack, Text } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconGripVertical } from '@tabler/icons-react';
import { useMemo, type ReactNode } from 'react';
import { say } from '../../app/notices';
import { Choice } from '../../ui/Choice';
import { InOrder, useDragged } from '../../ui/InOrder';
import { moved } from '../../ui/moved';
import { nameFrom, seated, useInside, type Inside } from '../live/useRoom';
import { isPeople, openPeople } from '../frame/apart';
import { inSeatOrder, ordering, orderSeats, type Order } from './ordering';
import SeatsAlone from './SeatsAlone';
import classes from './order.module.css';

const OPTIONS: { value: Order; label: string }[] = [
  { value: 'list', label: 'The class list' },
  { value: 'group', label: 'Group' },
  { value: 'quiet', label: 'Who is quiet first' },
  { value: 'hand', label: 'My own order' },
];

/** By what the seats stand, for whoever teaches on this device; in their own order, by dragging or by arrows. */
export default function SeatOrder() {
  const { by } = ordering.use();
  return (
    <Stack gap="xs">
      <Choice label="Seats by" value={by} onChange={(to) => orderSeats({ by: to })} options={OPTIONS} />
      {by === 'hand' && <ByHand />}
      <SeatsAlone />
      <Text size="sm" c="dimmed">
        Who is here comes first in each. Only you have them so.
      </Text>
      {!isPeople() && (
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => {
            if (!openPeople())
              say('The browser let no window be opened. Allow it beside the address.', 'fault');
          }}
        >
          In a window of their own, with talk
        </Button>
      )}
    </Stack>
  );
}

function ByHand() {
  const ordered = ordering.use();
  const select = useMemo(
    () => (inside: Inside) =>
      inSeatOrder(seated(inside), ordered, () => null).map((p) => ({
        member: p.member,
        name: nameFrom(inside, p.member),
      })),
    [ordered],
  );
  const people = useInside(select);
  const members = people.map((p) => p.member);
  const put = (from: number, to: number) => orderSeats({ hand: moved(members, from, to) });
  return (
    <InOrder keys={members} put={put}>
      <ol className={classes.order} aria-label="My own order" tabIndex={0}>
        {people.map(({ member, name }, i) => (
          <Row key={member} member={member} name={name}>
            <ActionIcon
              variant="subtle"
              aria-label={`Earlier: ${name}`}
              disabled={i === 0}
              onClick={() => put(i, i - 1)}
            >
              <IconArrowUp size={16} />
            </ActionIcon>
            <ActionIcon
              variant="subtle"
              aria-label={`Later: ${name}`}
              disabled={i === people.length - 1}
              onClick={() => put(i, i + 1)}
            >
              <IconArrowDown size={16} />
            </ActionIcon>
          </Row>
        ))}
      </ol>
    </InOrder>
  );
}

function Row({ member, name, children }: { member: string; name: string; children: ReactNode }) {
  const { row, handle } = useDragged<HTMLLIElement>(member, name);
  return (
    <li {...row}>
      <span {...handle} className={classes.grip}>
        <IconGripVertical size={16} />
      </span>
      <bdi>{name}</bdi>
      {children}
    </li>
  );
}
