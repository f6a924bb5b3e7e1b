import { Button, Divider, Group, NativeSelect, Stack, Text } from '@mantine/core';
import { useState } from 'react';
import { countWords } from '@nimble-bell/core/calendar';
import { teaches } from '@nimble-bell/core/roster';
import { useLeave } from '../desk/useLeave';
import { useInside, useNameOf, useRoom, type Inside } from '../live/useRoom';

const select = ({ room, info }: Inside) => {
  const here = Object.values(room.presence.people).filter((o) => o.present);
  return {
    others: here.length - 1,
    recorded: room.recording.state !== 'off',
    over: room.bell.overAt !== null,
    teachers: here.filter((o) => teaches(o.role) && o.member !== info.me.member).map((o) => o.member),
  };
};

/** How a class ends: for everybody; or some go and some stay; or another goes on. */
export default function Ending({ close }: { close: () => void }) {
  const { send } = useRoom();
  const { others, recorded, over, teachers } = useInside(select);
  return (
    <Stack gap="sm">
      <Text>
        {others > 0
          ? `${countWords(others, 'person leaves', 'people leave')} the room with you`
          : 'The room closes'}
        {recorded
          ? ', the links are shut for this session, and the recording is prepared.'
          : ', and the links are shut for this session.'}
      </Text>
      <Group justify="flex-end">
        <Button variant="default" onClick={close} autoFocus>
          Go on teaching
        </Button>
        <Button color="clay" onClick={() => void send({ type: 'dismiss' })}>
          Dismiss for everyone
        </Button>
      </Group>
      <Divider />
      <Others over={over} recorded={recorded} close={close} />
      <TimeLeft close={close} />
      {teachers.length > 0 && <HandOver teachers={teachers} />}
    </Stack>
  );
}

function Others({ over, recorded, close }: { over: boolean; recorded: boolean; close: () => void }) {
  const { send } = useRoom();
  const put = (on: boolean) => {
    close();
    void send({ type: 'letGo', on });
  };
  if (over)
    return (
      <Button variant="default" onClick={() => put(false)}>
        The class goes on after all
      </Button>
    );
  return (
    <div>
      <Button variant="default" fullWidth onClick={() => put(true)}>
        Let them go, stay for questions
      </Button>
      <Text size="sm" c="dimmed" mt={2}>
        Whoever has a question stays with you{recorded ? ', and is not recorded' : ''}.
      </Text>
    </div>
  );
}

function TimeLeft({ close }: { close: () => void }) {
  const { send } = useRoom();
  const [minutes, setMinutes] = useState('5');
  return (
    <Group gap={6} wrap="nowrap" align="end">
      <NativeSelect
        label="Minutes left"
        data={['10', '5', '3', '2', '1']}
        value={minutes}
        onChange={(e) => setMinutes(e.currentTarget.value)}
      />
      <Button
        variant="default"
        style={{ flex: 1 }}
        onClick={() => {
          close();
          void send({ type: 'tellTimeLeft', minutes: Number(minutes) });
        }}
      >
        Say so to everybody
      </Button>
    </Group>
  );
}

function HandOver({ teachers }: { teachers: readonly string[] }) {
  const { send } = useRoom();
  const nameOf = useNameOf();
  const leave = useLeave();
  const [chosen, setChosen] = useState(teachers[0]!);
  const to = teachers.includes(chosen) ? chosen : teachers[0]!;
  return (
    <Group gap={6} wrap="nowrap" align="end">
      <NativeSelect
        label="Who goes on"
        data={teachers.map((t) => ({ value: t, label: nameOf(t) }))}
        value={to}
        onChange={(e) => setChosen(e.currentTarget.value)}
      />
      <Button
        variant="default"
        style={{ flex: 1 }}
        onClick={() => void send({ type: 'handOver', to }).then((done) => done && leave())}
      >
        Hand over and leave
      </Button>
    </Group>
  );
}
