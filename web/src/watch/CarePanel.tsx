import { Button, Group, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';
import { DeleteRecording } from './DeleteRecording';
import classes from './watch.module.css';
import { lengthWords } from './words';

/** What the recording is called; and that it goes, which can be taken back for thirty days. */
export default function CarePanel({ recording, position }: { recording: RecordingDetail; position: number }) {
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
      {recording.still !== null && <Still {...{ recording, position }} still={recording.still} />}
    </Panel>
  );
}

/** The picture that stands for it in lists: of a moment that one chooses, or the one that comes by itself. */
function Still({
  recording,
  position,
  still,
}: {
  recording: RecordingDetail;
  position: number;
  still: string;
}) {
  const ask = useAsk();
  const choose = useChange(
    (at: number | null) => ask(`/recordings/${recording.id}/still`, 'PUT', { position: at }),
    () => 'It has another picture.',
  );
  return (
    <Group mt="md">
      <img
        src={still}
        alt={`What stands for ${recording.title}`}
        width={192}
        height={108}
        className={classes.still}
      />
      <div>
        <Text size="sm">This picture stands for it in lists.</Text>
        <Group gap="xs" mt={6}>
          <Button variant="default" onClick={() => choose.mutate(Math.min(position, recording.lengthMs - 1))}>
            Take this moment, {lengthWords(position)}
          </Button>
          <Button variant="subtle" onClick={() => choose.mutate(null)}>
            The first that is seen
          </Button>
        </Group>
      </div>
    </Group>
  );
}
