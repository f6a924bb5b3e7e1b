import { Button, Text } from '@mantine/core';
import type { ClassNotesInfo } from '@nimble-bell/core/api';
import { useAsked } from '../app/queries';
import { downloadText } from './download';
import { Panel } from './Panel';

/** What a class wrote together, to be read and taken along; nothing where it wrote none. */
export default function ClassNotes({ session, name }: { session: string; name: string }) {
  const { data } = useAsked<ClassNotesInfo>(`/sessions/${session}/notes`);
  if (!data?.text) return null;
  return (
    <Panel title="Class notes">
      <Text style={{ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' }}>{data.text}</Text>
      <Button
        mt="sm"
        variant="subtle"
        size="compact-sm"
        px={0}
        onClick={() => downloadText(`${name} notes.txt`, data.text)}
      >
        Take them along as text
      </Button>
    </Panel>
  );
}
