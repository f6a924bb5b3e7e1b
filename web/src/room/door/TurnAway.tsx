import { Button, Group, Modal, Stack, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useRoom } from '../live/useRoom';

/** Asks for the word with which somebody at the door is turned away. */
export default function TurnAway({
  member,
  name,
  close,
}: {
  member: string;
  name: string;
  close: () => void;
}) {
  const { send } = useRoom();
  const [word, setWord] = useState('');
  const turn = () => {
    close();
    void send({ type: 'turnAway', members: [member], word: word.trim() });
  };
  return (
    <Modal opened onClose={close} title={`Turn ${name} away?`} centered>
      <Stack>
        <TextInput
          label="A word to them"
          description="They read it. They do not come in in this session, unless you let them back."
          maxLength={200}
          data-autofocus
          value={word}
          onChange={(e) => setWord(e.currentTarget.value)}
        />
        <Group justify="flex-end">
          <Button variant="default" onClick={close}>
            Let them wait
          </Button>
          <Button color="clay" onClick={turn}>
            Turn away
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
