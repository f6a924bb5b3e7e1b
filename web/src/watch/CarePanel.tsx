import { Button, Group, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';
import { DeleteRecording } from './DeleteRecording';

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
        <DeleteRecording recording={recording} label="Delete …" />
      </Group>
    </Panel>
  );
}
