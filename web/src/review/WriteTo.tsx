import { Button, Group, Modal, Stack, Text, Textarea } from '@mantine/core';
import { useState } from 'react';
import { countWords, namesWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';

export interface WriteToProps {
  course: string;
  to: readonly { member: string; name: string }[];
  /** What one may begin with. */
  begin: string;
  /** The recording that it is about. */
  recording?: string;
}

const NAMED = 6;

/** Writes to some of the class: one letter each, nobody sees who else has it. */
export default function WriteTo({ close, ...of }: WriteToProps & { close: () => void }) {
  const ask = useAsk();
  const [text, setText] = useState(of.begin);
  const send = useChange(
    () =>
      ask<{ count: number }>(`/courses/${of.course}/words`, 'POST', {
        members: of.to.map((t) => t.member),
        text,
        recording: of.recording ?? null,
      }),
    ({ count }) => {
      close();
      return `${countWords(count, 'letter')} on the way.`;
    },
  );
  const names = of.to.slice(0, NAMED).map((t) => t.name);
  const more = of.to.length - names.length;
  return (
    <Modal
      opened
      onClose={close}
      title={`Write to ${countWords(of.to.length, 'student')}`}
      centered
      size="lg"
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          send.mutate(undefined);
        }}
      >
        <Stack>
          <Text size="sm">
            To {namesWords(more > 0 ? [...names, countWords(more, 'other')] : names)}, each alone.
          </Text>
          <Textarea
            label="What you write"
            autosize
            minRows={5}
            maxLength={2000}
            value={text}
            error={send.error?.message}
            onChange={(e) => setText(e.currentTarget.value)}
            data-autofocus
          />
          <Group justify="flex-end">
            <Button variant="default" onClick={close}>
              Not now
            </Button>
            <Button type="submit" disabled={!text.trim()} loading={send.isPending}>
              Send it
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
