import { Button, Group, Modal, NumberInput, Stack, Text } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { MOST_STAND_INS } from '@nimble-bell/core/rehearsal';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';

/** How many are made up where the list is empty. */
const SOME = 20;

/** How large a class is made up; then its room. */
export default function TryDialog(props: { session: string; students: number; close: () => void }) {
  const { session, students, close } = props;
  const ask = useAsk();
  const go = useNavigate();
  const [size, setSize] = useState<number | string>(Math.min(students || SOME, MOST_STAND_INS));
  const begin = useChange(
    (size: number) => ask<{ session: string }>(`/sessions/${session}/rehearsal`, 'POST', { size }),
    undefined,
    ({ session }) => void go(`/room/${session}`),
  );
  const fine = typeof size === 'number' && Number.isInteger(size) && size >= 1 && size <= MOST_STAND_INS;
  return (
    <Modal opened onClose={close} title="Try this session" centered>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (fine) begin.mutate(size);
        }}
      >
        <Stack>
          <Text>
            A made-up class comes to a room like this session’s, with its limits, its run sheet and what is
            prepared for it. Some are late, some write too much, some try what is closed.
          </Text>
          <Text>Nothing of it is recorded, kept, mailed or counted. Your students see nothing of it.</Text>
          <NumberInput
            data-autofocus
            label="How many come"
            min={1}
            max={MOST_STAND_INS}
            allowDecimal={false}
            clampBehavior="none"
            value={size}
            onChange={setSize}
            error={!fine && `1 to ${MOST_STAND_INS}`}
          />
          <Group justify="flex-end">
            <Button variant="default" onClick={close}>
              Not now
            </Button>
            <Button type="submit" loading={begin.isPending}>
              Begin
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
