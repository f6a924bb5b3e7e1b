import { Button, Group, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';

/** What the recording is called; and that it goes, which can be taken back for thirty days. */
export default function CarePanel({ recording }: { recording: RecordingDetail }) {
  const ask = useAsk();
  const [title, setTitle] = useState(recording.title);
  const rename = useChange(
    () => ask(`/recordings/${recording.id}`, 'PUT', { title }),
    () => 'The recording is called so.',
  );
  return (
    <Panel
      title="This recording"
      about="Everybody reads its title, and a download is called by it. Left empty it has that of its session."
    >
      <Group align="flex-end">
        <TextInput
          label="Title"
          w={340}
          maxLength={120}
          value={title}
          error={rename.error?.message}
          onChange={(e) => setTitle(e.currentTarget.value)}
        />
        <Button
          variant="default"
          loading={rename.isPending}
          disabled={title.trim() === recording.title}
          onClick={() => rename.mutate()}
        >
          Call it so
        </Button>
        <Delete recording={recording} />
      </Group>
    </Panel>
  );
}

/** One is asked; where it leads, it can be taken back. */
function Delete({ recording }: { recording: RecordingDetail }) {
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
        Delete …
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
