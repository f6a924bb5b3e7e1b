import { Anchor, Button, CopyButton, Group, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useAsk } from '../app/api';

/** The address of a calendar, as the server hands it over. */
export interface Feed {
  path: string;
  url: string;
}

/** The address of one's calendar: to copy, to download, to replace. */
export default function FeedAddress(props: { feed: Feed; course: string | null; set: (feed: Feed) => void }) {
  return (
    <>
      <Address feed={props.feed} />
      <Replace course={props.course} set={props.set} />
    </>
  );
}

function Address({ feed }: { feed: Feed }) {
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
      <Button variant="default" component="a" href={`${feed.path}?download`}>
        Download as .ics
      </Button>
    </Group>
  );
}

/** An address that others may have read can be replaced. */
function Replace({ course, set }: { course: string | null; set: (feed: Feed) => void }) {
  const ask = useAsk();
  const replace = async () => {
    set(await ask<Feed>('/feeds', 'POST', { course, replace: true }));
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
            Whoever has it can read these times.
          </Text>
          <Anchor component="button" type="button" size="sm" onClick={() => setAsking(true)}>
            Replace it
          </Anchor>
        </>
      )}
    </Group>
  );
}
