import { ActionIcon, Button, Group, Modal, Stack, Text } from '@mantine/core';
import { IconArrowUp, IconX } from '@tabler/icons-react';
import { useState } from 'react';
import { clockWords, countWords } from '@nimble-bell/core/calendar';
import { proposals, segmentEnds, type CuedSegment, type Left } from '@nimble-bell/core/room';
import { useNow } from '../../app/clock';
import { useInfo, useInside, useRoom, type Inside } from '../live/useRoom';

const MINUTE_MS = 60_000;
const WAYS = { shrink: 'Each shorter by its share', drop: 'The last ones dropped' };

const select = ({ room, info }: Inside) => ({
  sheet: room.runSheet,
  endsAt: (room.bell.times ?? info.session).endsAt,
});
const same = (a: ReturnType<typeof select>, b: ReturnType<typeof select>) =>
  a.sheet === b.sheet && a.endsAt === b.endsAt;

/** What is still to come, in another order, or in the time that is left: proposed with its times, in force once taken. */
export default function PlanLeft({ close }: { close: () => void }) {
  const { send } = useRoom();
  const { zone } = useInfo();
  const { sheet, endsAt } = useInside(select, same);
  const now = useNow(20_000);
  const { segments, at } = sheet;
  const begins = Math.max(now, segmentEnds(sheet) ?? now);
  const minutes = Math.floor((endsAt - begins) / MINUTE_MS);
  const [left, setLeft] = useState<Left[]>(() =>
    segments.map(({ minutes: own }, index) => ({ index, minutes: own })).filter((l) => l.index > (at ?? -1)),
  );
  const wanted = left.reduce((sum, l) => sum + l.minutes, 0);
  const ways = proposals(segments, at ?? -1, minutes);
  const take = () => void send({ type: 'planLeft', left }).then((done) => done && close());
  return (
    <Modal opened onClose={close} title="Plan what is left" centered>
      <Stack gap="sm">
        <Text size="sm">
          {countWords(wanted, 'minute')} planned, {countWords(Math.max(0, minutes), 'minute')} left until{' '}
          {clockWords(endsAt, zone)}.
        </Text>
        {ways.length > 0 && (
          <Group gap="xs">
            {ways.map((w) => (
              <Button key={w.way} size="compact-sm" variant="default" onClick={() => setLeft(w.left)}>
                {WAYS[w.way]}
              </Button>
            ))}
          </Group>
        )}
        <Order left={left} set={setLeft} segments={segments} begins={begins} zone={zone} />
        <Group justify="flex-end">
          <Button variant="default" onClick={close}>
            Leave it
          </Button>
          <Button onClick={take}>Take this plan</Button>
        </Group>
      </Stack>
    </Modal>
  );
}

interface OrderProps {
  left: Left[];
  set: (left: Left[]) => void;
  segments: readonly CuedSegment[];
  /** When the first of them begins, an instant. */
  begins: number;
  zone: string;
}

function Order({ left, set, segments, begins, zone }: OrderProps) {
  const startOf = (i: number) => begins + left.slice(0, i).reduce((sum, l) => sum + l.minutes, 0) * MINUTE_MS;
  return (
    <>
      {left.map((l, i) => (
        <Group key={l.index} justify="space-between" wrap="nowrap">
          <Text size="sm">
            <span className="figures">{clockWords(startOf(i), zone)}</span> {segments[l.index]!.title},{' '}
            {l.minutes} min
          </Text>
          <Group gap={4} wrap="nowrap">
            <ActionIcon
              variant="default"
              disabled={i === 0}
              aria-label={`Earlier: ${segments[l.index]!.title}`}
              onClick={() => set([...left.slice(0, i - 1), l, left[i - 1]!, ...left.slice(i + 1)])}
            >
              <IconArrowUp size={16} />
            </ActionIcon>
            <ActionIcon
              variant="default"
              aria-label={`Drop: ${segments[l.index]!.title}`}
              onClick={() => set(left.filter((x) => x !== l))}
            >
              <IconX size={16} />
            </ActionIcon>
          </Group>
        </Group>
      ))}
    </>
  );
}
