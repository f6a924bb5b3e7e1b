import { Button, Group, Progress, Stack, Text } from '@mantine/core';
import type { ExportInfo, RecordingDetail, TakenAlong } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { useState } from 'react';

import { useAsk } from '../app/api';
import { useAsked, useChange } from '../app/queries';
import FeedAddress, { type Feed } from '../ui/FeedAddress';
import { sizeWords } from '../ui/Materials';
import { Panel } from '../ui/Panel';
import CheckSaved from './CheckSaved';
import { languageWords } from './languages';
import classes from './watch.module.css';

const KINDS: Record<TakenAlong, { words: string; about: string }> = {
  'film.mp4': {
    words: 'A film (MP4)',
    about: 'Screen or board large, the camera in its corner; plays almost everywhere.',
  },
  'film.webm': { words: 'A film (WebM)', about: 'The same, in an open format.' },
  'beside.mp4': {
    words: 'A film, side by side (MP4)',
    about: 'Screen, board and camera beside one another: nothing is covered.',
  },
  'beside.webm': { words: 'A film, side by side (WebM)', about: 'The same, in an open format.' },
  'sound.mp3': { words: 'Sound alone (MP3)', about: 'With its chapters.' },
  'archive.zip': {
    words: 'Everything',
    about: 'Pictures, sound, captions and writing, and a page that plays them without us.',
  },
};

/** What is made to be taken along: asked for, watched while it is made, and saved. */
export default function TakeAlong({ recording }: { recording: RecordingDetail }) {
  const { id } = recording;
  const { data = [] } = useAsked<ExportInfo[]>(`/recordings/${id}/exports`, {
    every: (known) => (known?.some((e) => e.state === 'waiting' || e.state === 'making') ? 1500 : 60_000),
  });
  return (
    <Panel
      title="Take it along"
      about="Each is made when you ask for it, which takes some minutes for a long class, and is kept for a day."
    >
      <Stack gap="sm">
        <ul className={classes.kinds}>
          {(Object.keys(KINDS) as TakenAlong[]).map((kind) => (
            <Row key={kind} {...{ kind, recording }} made={data.find((e) => e.kind === kind)} />
          ))}
        </ul>
        <AtOnce recording={recording} />
        <Listen id={id} />
      </Stack>
    </Panel>
  );
}

/** All of this class that may be taken along, in a program that plays what one subscribes to. */
function Listen({ id }: { id: string }) {
  const ask = useAsk();
  const [feed, setFeed] = useState<Feed | null>(null);
  const path = `/recordings/${id}/listening`;
  const show = useChange(async () => setFeed(await ask<Feed>(path, 'POST', {})));
  if (feed)
    return (
      <FeedAddress
        {...{ feed, path }}
        set={setFeed}
        about={{}}
        opens="It is yours alone: whoever has it listens in your name. What is new comes within some minutes."
      />
    );
  return (
    <Group gap="xs">
      <Text size="sm">Every recording of this class, to listen to in a program of yours:</Text>
      <Button
        size="compact-sm"
        variant="default"
        loading={show.isPending}
        onClick={() => show.mutate(undefined)}
      >
        An address to listen at
      </Button>
    </Group>
  );
}

/** What needs no making. */
function AtOnce({ recording: { id, mediaPath, captions } }: { recording: RecordingDetail }) {
  const ticket = mediaPath.slice(mediaPath.indexOf('?'));
  return (
    <Group gap="xs" role="group" aria-label="At once">
      {(['txt', 'csv'] as const).map((kind) => (
        <Button
          key={kind}
          component="a"
          href={`/api/recordings/${id}/export/writing.${kind}${ticket}`}
          variant="subtle"
          size="xs"
        >
          {kind === 'txt' ? 'Writing as text' : 'Writing as a table (CSV)'}
        </Button>
      ))}
      {captions.map((c) => (
        <Button key={c.language} component="a" href={c.path} download variant="subtle" size="xs">
          Captions, {languageWords(c.language)}
        </Button>
      ))}
    </Group>
  );
}

interface RowProps {
  kind: TakenAlong;
  recording: RecordingDetail;
  made: ExportInfo | undefined;
}

function Row({ kind, recording, made }: RowProps) {
  const { id } = recording;
  const ask = useAsk();
  const { words, about } = KINDS[kind];
  const begin = useChange(
    () => ask(`/recordings/${id}/exports`, 'POST', { kind }),
    () => `${words}: it is being made.`,
  );
  const away = useChange(
    (which: string) => ask(`/recordings/${id}/exports/${which}`, 'DELETE'),
    () => `${words}: not made.`,
  );
  return (
    <li>
      <div>
        {words}
        <Text size="sm" c="dimmed">
          {about}
        </Text>
      </div>
      <div>
        {made?.state === 'waiting' || made?.state === 'making' ? (
          <Group gap="xs" wrap="nowrap">
            <Progress value={100 * made.progress} flex={1} aria-label={`${words}, how far`} />
            <Text size="sm" className="figures">
              {made.state === 'waiting' ? 'waits' : `${Math.round(100 * made.progress)} %`}
            </Text>
            <Button size="compact-sm" variant="default" onClick={() => away.mutate(made.id)}>
              Not after all
            </Button>
          </Group>
        ) : made?.path ? (
          <Made {...{ kind, recording, made }} />
        ) : (
          <Group gap="xs">
            <Button
              size="xs"
              variant="default"
              loading={begin.isPending}
              aria-label={`Make: ${words}`}
              onClick={() => begin.mutate(undefined)}
            >
              Make it
            </Button>
            {made && <Text size="sm">It could not be made. Try again.</Text>}
          </Group>
        )}
      </div>
    </li>
  );
}

/** What is made: saved, and seen to have come whole. */
function Made({ kind, recording, made }: RowProps & { made: ExportInfo }) {
  const { words } = KINDS[kind];
  const { zone } = recording;
  return (
    <Group gap="xs">
      <Button component="a" href={made.path!} size="xs" aria-label={`Save: ${words}`}>
        Save, {sizeWords(made.bytes)}
      </Button>
      <Text size="sm" c="dimmed">
        until {instantWords(made.goneAt!, zone)}
      </Text>
      {made.sha256 && <CheckSaved {...{ recording }} sha256={made.sha256} whole={kind === 'archive.zip'} />}
    </Group>
  );
}
