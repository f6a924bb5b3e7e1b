import { Button, FileButton, Group, Loader, Text } from '@mantine/core';
import { useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { DeleteRecording } from './DeleteRecording';
import { hashOf } from './hashOf';

interface CheckSavedProps {
  recording: RecordingDetail;
  /** SHA-256 of what was made. */
  sha256: string;
  /** It is everything: what is on the server need not stay. */
  whole: boolean;
}

/** What was saved is read here, and compared with what was made; what came whole need not stay with us. */
export default function CheckSaved({ recording, sha256, whole }: CheckSavedProps) {
  const [found, setFound] = useState<'reading' | 'same' | 'other' | null>(null);
  const check = async (file: File | null) => {
    if (!file) return;
    setFound('reading');
    setFound((await hashOf(file).catch(() => '')) === sha256 ? 'same' : 'other');
  };
  return (
    <Group gap="xs" mt={4}>
      <FileButton onChange={(file) => void check(file)}>
        {(props) => (
          <Button size="compact-sm" variant="subtle" {...props}>
            Did it come whole?
          </Button>
        )}
      </FileButton>
      <span role="status">
        {found === 'reading' && <Loader size="xs" aria-label="Reading what you saved" />}
        {found === 'same' && <Text size="sm">Yes: it is what was made, to the last byte.</Text>}
        {found === 'other' && <Text size="sm">No: this is not what was made. Save it again.</Text>}
      </span>
      {found === 'same' && whole && recording.caring && (
        <DeleteRecording recording={recording} label="Then let it go from here …" />
      )}
    </Group>
  );
}
