import { FileButton, Group, NativeSelect, Text } from '@mantine/core';
import { useState } from 'react';
import { chooseDevices, ownDevices } from '../live/ownDevices';
import type { Behind } from '../live/background/messages';
import { SmallButton } from '../../ui/SmallButton';
import { asJpeg, NO_PICTURE, PICTURES } from '../../ui/asJpeg';

/** As large as a camera's picture is, pixels: what is larger is kept in vain. */
const scale = ({ width, height }: { width: number; height: number }) => Math.max(960 / width, 720 / height);

const WORDS: Record<Behind, string> = {
  plain: 'As it is',
  blurred: 'Blurred',
  picture: 'A picture of yours',
};

/** What the others see behind somebody. */
export function BehindChoice({ changed }: { changed: () => void }) {
  const { behind, behindPicture } = ownDevices.use();
  const [fault, setFault] = useState<string | null>(null);
  const show = (more: { behind?: Behind; behindPicture?: string }) => {
    setFault(null);
    chooseDevices(more);
    // Without a picture there is nothing to show yet.
    const now = ownDevices.get();
    if (now.behind !== 'picture' || now.behindPicture) changed();
  };
  const take = async (file: File | null) => {
    if (!file) return;
    const picture = await asJpeg(file, { scale }).catch(() => null);
    if (picture) show({ behind: 'picture', behindPicture: picture.data });
    else setFault(NO_PICTURE);
  };
  return (
    <>
      <NativeSelect
        size="xs"
        label="Behind you"
        description={
          behind === 'plain' ? undefined : 'Drawn on this device; where that is too slow, it is said.'
        }
        data={Object.entries(WORDS).map(([value, label]) => ({ value, label }))}
        value={behind}
        onChange={(e) => show({ behind: e.currentTarget.value as Behind })}
      />
      {behind === 'picture' && (
        <Group gap={8} wrap="nowrap">
          <FileButton accept={PICTURES} onChange={(file) => void take(file)}>
            {(props) => (
              <SmallButton {...props}>{behindPicture ? 'Another picture' : 'Choose a picture'}</SmallButton>
            )}
          </FileButton>
          {behindPicture && <img src={behindPicture} alt="The picture behind you" height={36} />}
        </Group>
      )}
      {fault && (
        <Text size="xs" c="clay" role="alert">
          {fault}
        </Text>
      )}
    </>
  );
}
