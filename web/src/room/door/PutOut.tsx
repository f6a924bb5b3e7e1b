import { Button, Group, Modal, Radio, Stack, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Back } from '@nimble-bell/core/room';
import { useRoom } from '../live/useRoom';

const BACK: { value: Back; label: string }[] = [
  { value: 'may', label: 'They may come back' },
  { value: 'knocks', label: 'They come back by knocking' },
  { value: 'not', label: 'Not in this session' },
];

/** Asks how somebody who is put out comes back, and why: they read the reason, and it stays in the log. */
export default function PutOut({ member, name, close }: { member: string; name: string; close: () => void }) {
  const { send } = useRoom();
  const [back, setBack] = useState<Back>('knocks');
  const [reason, setReason] = useState('');
  const put = () => {
    close();
    void send({ type: 'putOut', member, back, reason: reason.trim() });
  };
  return (
    <Modal opened onClose={close} title={`Put ${name} out of the room?`} centered>
      <Stack>
        <Radio.Group label="And then" value={back} onChange={(v) => setBack(v as Back)}>
          <Stack gap="xs" mt="xs">
            {BACK.map((b) => (
              <Radio key={b.value} value={b.value} label={b.label} />
            ))}
          </Stack>
        </Radio.Group>
        <TextInput
          label="Why"
          description="They read it, and it stays in the session’s log. Optional."
          maxLength={200}
          value={reason}
          onChange={(e) => setReason(e.currentTarget.value)}
        />
        <Group justify="flex-end">
          <Button variant="default" onClick={close} data-autofocus>
            Leave them here
          </Button>
          <Button color="clay" onClick={put}>
            Put them out
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
