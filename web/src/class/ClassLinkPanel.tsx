import { Button, CopyButton, Group, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { ClassLinkInfo } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { Panel } from '../ui/Panel';
import type { DefinedQueryObserverResult, QueryObserverPlaceholderResult } from '@tanstack/react-query';

/** The link that a whole class shares, with its passcode: hidden unless it is wanted. */
export function ClassLinkPanel() {
  const course = useThisCourse();
  const ask = useAsk();
  const path = `/courses/${course.id}/class-link`;
  const link = useAsked<ClassLinkInfo>(path);
  const [asking, setAsking] = useState<'hide' | 'replace' | null>(null);
  const change = useChange((what: 'show' | 'hide' | 'replace') =>
    ask<ClassLinkInfo>(path, 'PUT', { do: what }),
  );
  const act = (what: 'show' | 'hide' | 'replace') =>
    change.mutate(what, { onSuccess: () => setAsking(null) });
  if (!link.data) return null;
  const url = link.data.path && `${window.location.origin}${link.data.path}`;
  const mayChange = course.role === 'teacher';
  return (
    <Panel
      title="Class link"
      about="For somebody who has no link of their own: with the passcode and their name they come to the next session as a guest."
      action={
        !url &&
        mayChange && (
          <Button variant="default" loading={change.isPending} onClick={() => act('show')}>
            Show a class link
          </Button>
        )
      }
    >
      {!url ? (
        <Text size="sm" c="dimmed">
          There is none: nobody comes in without a link of their own.
        </Text>
      ) : (
        <Stack gap="xs">
          <Address url={url} link={link} />
          {mayChange &&
            (asking ? (
              <Sure asking={asking} act={act} setAsking={setAsking} />
            ) : (
              <Group gap="xs">
                <Button size="compact-sm" variant="default" onClick={() => setAsking('replace')}>
                  Replace
                </Button>
                <Button size="compact-sm" variant="default" onClick={() => setAsking('hide')}>
                  Hide
                </Button>
              </Group>
            ))}
        </Stack>
      )}
    </Panel>
  );
}

/** Asks before an address dies. */
function Sure({
  asking,
  act,
  setAsking,
}: {
  asking: 'hide' | 'replace';
  act: (what: 'show' | 'hide' | 'replace') => void;
  setAsking: (value: 'hide' | 'replace' | null) => void;
}) {
  return (
    <Group gap="xs">
      <Text size="sm">
        {asking === 'hide'
          ? 'The address opens nothing from then on; who is in already stays. Hide it?'
          : 'Address and passcode become others; the old ones open nothing. Replace them?'}
      </Text>
      <Button size="compact-sm" color="clay" onClick={() => act(asking)}>
        {asking === 'hide' ? 'Hide it' : 'Replace them'}
      </Button>
      <Button size="compact-sm" variant="default" autoFocus onClick={() => setAsking(null)}>
        Keep as it is
      </Button>
    </Group>
  );
}

/** Address and passcode, to be copied together. */
function Address({
  url,
  link,
}: {
  url: string;
  link:
    DefinedQueryObserverResult<ClassLinkInfo, Error> | QueryObserverPlaceholderResult<ClassLinkInfo, Error>;
}) {
  return (
    <Group align="flex-end">
      <TextInput label="Address" readOnly value={url} style={{ flex: '1 1 260px' }} />
      <TextInput label="Passcode" readOnly value={link.data.passcode ?? ''} w={120} />
      <CopyButton value={`${url}\nPasscode: ${link.data.passcode ?? ''}`}>
        {({ copied, copy }) => (
          <Button variant="default" onClick={copy}>
            {copied ? 'Copied' : 'Copy both'}
          </Button>
        )}
      </CopyButton>
    </Group>
  );
}
