import { Button, FileButton, Text } from '@mantine/core';
import { useContext, useState } from 'react';
import type { Addressee } from '@nimble-bell/core/api';
import { LinkContext } from '../../../app/api';
import { OnItsWay } from '../../../ui/OnItsWay';
import { sendFile } from '../../../ui/sendFile';
import { useInfo, useRoom } from '../../live/useRoom';

interface AttachProps {
  addressee: Addressee;
  /** What is written with it, if anything. */
  text: string;
  sent: () => void;
}

/** Sends a file up, and says it to whom one writes. */
export default function Attach({ addressee, text, sent }: AttachProps) {
  const { send } = useRoom();
  const { session } = useInfo();
  const link = useContext(LinkContext);
  const [share, setShare] = useState<number | null>(null);
  const [fault, setFault] = useState('');
  const attach = async (file: File | null) => {
    if (!file) return;
    setFault('');
    setShare(0);
    try {
      const query = new URLSearchParams({ name: file.name });
      const answer = await sendFile(`/api/sessions/${session.id}/attached?${query}`, file, {
        tell: setShare,
        link,
      });
      const { id } = answer as { id: string };
      if (await send({ type: 'say', addressee, text: text.trim() || 'A file:', file: id })) sent();
    } catch (error) {
      setFault((error as Error).message);
    }
    setShare(null);
  };
  return (
    <>
      <FileButton onChange={(file) => void attach(file)}>
        {(button) => (
          <Button {...button} size="xs" variant="default" loading={share !== null}>
            Attach a file
          </Button>
        )}
      </FileButton>
      <OnItsWay share={share} />
      {fault && (
        <Text size="sm" role="alert" c="var(--clay)">
          {fault}
        </Text>
      )}
    </>
  );
}
