import { Anchor, Button, CopyButton, Group, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useAsk } from '../app/api';

/** The address of a calendar, or of what one listens to, as the server hands it over. */
export interface Feed {
  path: string;
  url: string;
}

interface FeedAddressProps {
  feed: Feed;
  set: (feed: Feed) => void;
  /** Where it is asked for, and with what. */
  path: string;
  about: object;
  /** What whoever has the address can do. */
  opens: string;
  /** What it is as a file, if it is one. */
  file?: string;
}

/** A secret address to subscribe to: to copy, to download, to replace. */
export default function FeedAddress({ feed, set, path, about, opens, file }: FeedAddressProps) {
  return (
    <>
      <Address feed={feed} file={file} />
      <Replace {...{ set, path, about, opens }} />
    </>
  );
}

function Address({ feed, file }: { feed: Feed; file: string | undefined }) {
  return (
    <Group align="flex-end" wrap="wrap">
      <TextInput
        label="Address to subscribe to"
        readOnly
        value={feed.url}
        style={{ flex: '1 1 260px' }}
        onFocus={(e) => e.currentTarget.select()}
      />
      <CopyButton value={feed.url}>
        {({ copied, copy }) => (
          <Button variant="default" onClick={copy}>
            {copied ? 'Copied' : 'Copy'}
          </Button>
        )}
      </CopyButton>
      {file && (
        <Button variant="default" component="a" href={`${feed.path}?download`}>
          {file}
        </Button>
      )}
    </Group>
  );
}

/** An address that others may have read can be replaced. */
function Replace({ set, path, about, opens }: Omit<FeedAddressProps, 'feed' | 'file'>) {
  const ask = useAsk();
  const replace = async () => {
    set(await ask<Feed>(path, 'POST', { ...about, replace: true }));
    setAsking(false);
  };
  const [asking, setAsking] = useState(false);
  return (
    <Group mt="xs" gap="xs">
      {asking ? (
        <>
          <Text size="sm">Programs that follow the old address will show nothing new. Replace it?</Text>
          <Button size="compact-sm" color="clay" onClick={() => void replace()}>
            Replace the address
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => setAsking(false)} autoFocus>
            Keep it
          </Button>
        </>
      ) : (
        <>
          <Text size="sm" c="dimmed">
            {opens}
          </Text>
          <Anchor component="button" type="button" size="sm" onClick={() => setAsking(true)}>
            Replace it
          </Anchor>
        </>
      )}
    </Group>
  );
}
