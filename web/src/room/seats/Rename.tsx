import { Button, Group, Modal, Stack, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useMe, useRoom } from '../live/useRoom';

/** Asks what somebody is called in this course from now on. */
export default function Rename({ member, name, close }: { member: string; name: string; close: () => void }) {
  const { send } = useRoom();
  const me = useMe().member === member;
  const [called, setCalled] = useState(name);
  const save = async () => {
    if (await send({ type: 'rename', member, name: called.trim() })) close();
  };
  return (
    <Modal opened onClose={close} title={me ? 'What you are called' : `What ${name} is called`} centered>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <Stack>
          <TextInput
            label="Name"
            description="In all classes of this course, for everyone."
            maxLength={120}
            data-autofocus
            value={called}
            onChange={(e) => setCalled(e.currentTarget.value)}
          />
          <Group justify="flex-end">
            <Button variant="default" onClick={close}>
              Leave it
            </Button>
            <Button type="submit" disabled={!called.trim() || called.trim() === name}>
              Keep the name
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
