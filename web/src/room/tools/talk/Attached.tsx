import { Anchor, Text } from '@mantine/core';
import type { AttachedInfo } from '@nimble-bell/core/api';
import { useAsked } from '../../../app/queries';
import { sizeWords } from '../../../ui/Materials';
import classes from './talk.module.css';

/** A file that goes with a message, to have; a picture is seen there. */
export default function Attached({ session, id }: { session: string; id: string }) {
  const attached = useAsked<AttachedInfo[]>(`/sessions/${session}/attached?of=${id}`);
  const [file] = attached.data ?? [];
  if (!file) return <Text size="sm">A file</Text>;
  return (
    <>
      {file.shown && <img className={classes.picture} src={file.path} alt={file.name} loading="lazy" />}
      <Text size="sm">
        <Anchor fz="sm" href={file.path} download>
          {file.name}
        </Anchor>{' '}
        {sizeWords(file.bytes)}
      </Text>
    </>
  );
}
