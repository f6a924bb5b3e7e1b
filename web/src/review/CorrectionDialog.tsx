import { Button, Group, Modal, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import { MARK_WORDS, MARKS, type BookCell, type Mark } from '@nimble-bell/core/roll';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Choice } from '../ui/Choice';

/** Whose line of which session. */
export interface Corrected {
  member: string;
  name: string;
  session: { id: string; title: string; number: number };
  cell: BookCell;
}

/** What a teacher says in place of the rules, with why. */
export function CorrectionDialog({ of, close }: { of: Corrected; close: () => void }) {
  const { member, name, session, cell } = of;
  const ask = useAsk();
  const [mark, setMark] = useState<Mark>(cell.mark);
  const [reason, setReason] = useState('');
  const save = useChange(
    (said: { mark: Mark | null; reason: string }) =>
      ask(`/sessions/${session.id}/roll/${member}`, 'PUT', said),
    (_done, said) => (said.mark ? 'The roll is corrected.' : 'The roll is as the rules make it.'),
  );
  const send = (said: { mark: Mark | null; reason: string }) => save.mutate(said, { onSuccess: close });
  return (
    <Modal opened onClose={close} centered title={`${name}, ${session.title} ${session.number}`}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          send({ mark, reason });
        }}
      >
        <Stack>
          <Text size="sm">
            {cell.minutes ? `There for ${cell.minutes} minutes` : 'Not there'}
            {cell.telephone && ', by telephone'}
            {cell.corrected && '; corrected since'}.
          </Text>
          <Choice
            label="Counts as"
            follows={false}
            value={mark}
            onChange={setMark}
            options={MARKS.map((m) => ({ value: m, label: MARK_WORDS[m] }))}
          />
          <TextInput
            label="Why"
            description="For those who teach; the person sees the mark alone."
            required
            maxLength={300}
            value={reason}
            error={save.error?.message}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
          <Group justify="flex-end">
            {cell.corrected && (
              <Button variant="default" onClick={() => send({ mark: null, reason: '' })}>
                As the rules make it
              </Button>
            )}
            <Button type="submit" loading={save.isPending} disabled={!reason.trim()}>
              Correct it
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}
