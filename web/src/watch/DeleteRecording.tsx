import { Button, Group } from '@mantine/core';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';

/** One is asked; where it leads, it can be taken back. */
export function DeleteRecording({ recording, label }: { recording: RecordingDetail; label: string }) {
  const ask = useAsk();
  const go = useNavigate();
  const { course } = useParams();
  const [asking, setAsking] = useState(false);
  const remove = useChange(
    () => ask(`/recordings/${recording.id}`, 'DELETE'),
    () => 'Deleted. For 30 days it can be taken back, on the page of its session.',
    () => void go(`/course/${course}/session/${recording.sessionId}`, { replace: true }),
  );
  if (!asking)
    return (
      <Button variant="subtle" onClick={() => setAsking(true)}>
        {label}
      </Button>
    );
  return (
    <Group role="alertdialog" aria-label="Delete the recording?" gap="xs">
      <Button color="clay" loading={remove.isPending} onClick={() => remove.mutate()}>
        Delete it for everyone
      </Button>
      <Button variant="default" autoFocus onClick={() => setAsking(false)}>
        Keep it
      </Button>
    </Group>
  );
}
