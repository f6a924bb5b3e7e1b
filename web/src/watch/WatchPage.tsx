import { Button, Container, Grid, Group, Loader, Stack, Text, Title, UnstyledButton } from '@mantine/core';
import { useContext, useDeferredValue, useMemo, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { Replay, type Gap } from '@nimble-bell/core/recording';
import { namesIn } from '@nimble-bell/core/room';
import { Bar } from '../app/Bar';
import { Shell } from '../app/Shell';
import { useAbout } from '../app/title';
import { LinkContext } from '../app/api';
import { useAsked, stopOf } from '../app/queries';
import type { ReplayProps } from '../room/tools/replay';
import { REPLAYS } from '../room/tools/replays';
import { Fault } from '../ui/Fault';
import { languageWords, lengthWords, preparingWords } from './words';
import classes from './watch.module.css';

/** A recording: its sound and picture, and what was written and drawn, replayed in time from the room's own events. */
export function WatchPage() {
  const { recording: id, code } = useParams();
  const link = useContext(LinkContext);
  const detail = useAsked<RecordingDetail>(`/recordings/${id}`);
  useAbout(detail.data?.title);
  // Drawn in slices: a weak phone answers meanwhile.
  const shown = useDeferredValue(detail.data);
  const stop = stopOf(detail);
  if (stop) return <Fault error={stop} />;
  if (!shown)
    return link ? (
      <Shell label="Loading the recording" />
    ) : (
      <Loader m={60} aria-label="Loading the recording" />
    );
  const body = shown.state === 'ready' ? <Player recording={shown} /> : <Text>{preparingWords(shown)}</Text>;
  if (!link) return body;
  return (
    <>
      <Bar home={`/in/${code}`} />
      <Container size="xl" py="lg" component="main" id="content">
        {body}
        <Button component={Link} to={`/in/${code}`} variant="subtle" mt="md">
          Back to the course page
        </Button>
      </Container>
    </>
  );
}

function Player({ recording }: { recording: RecordingDetail }) {
  const media = useRef<HTMLVideoElement>(null);
  const [position, setPosition] = useState(0);
  const room = useReplay(recording, position);
  const { zone } = recording;
  const goTo = (ms: number) => {
    if (!media.current) return;
    media.current.currentTime = ms / 1000;
    void media.current.play();
  };
  const nameOf = useMemo(() => namesIn(recording.events), [recording.events]);
  return (
    <Stack>
      <Head recording={recording} />
      <Grid>
        <Grid.Col span={{ base: 12, md: 8 }}>
          <video
            ref={media}
            className={classes.video}
            src={recording.mediaPath}
            controls
            controlsList="nodownload"
            preload="metadata"
            aria-label={`Recording of ${recording.title}`}
            onTimeUpdate={(e) => setPosition(e.currentTarget.currentTime * 1000)}
          >
            <Captions of={recording.captions} />
          </video>
          <Replays where="under" room={room} zone={zone} nameOf={nameOf} />
          <Gaps gaps={recording.gaps} />
          <Group mt="sm" gap="xs" role="group" aria-label="Chapters">
            {recording.chapters.map((c) => (
              <UnstyledButton
                key={c.position + c.title}
                className={classes.chapter}
                onClick={() => goTo(c.position)}
              >
                <time>{lengthWords(c.position)}</time> {c.title}
              </UnstyledButton>
            ))}
          </Group>
        </Grid.Col>
        <Grid.Col span={{ base: 12, md: 4 }}>
          <Replays where="beside" room={room} zone={zone} nameOf={nameOf} />
        </Grid.Col>
      </Grid>
    </Stack>
  );
}

function Head({ recording }: { recording: RecordingDetail }) {
  return (
    <Group justify="space-between" align="flex-end">
      <div>
        <Title order={1} size="h2">
          {recording.title}
        </Title>
        <Text c="dimmed" className="figures">
          {instantWords(recording.startsAt, recording.zone)}, {lengthWords(recording.lengthMs)}
        </Text>
      </div>
      <DownloadButton recording={recording} />
    </Group>
  );
}

/** What is said, to be shown over the picture. */
const Captions = ({ of }: { of: RecordingDetail['captions'] }) =>
  of.map((c) => (
    <track
      key={c.language}
      kind="captions"
      src={c.path}
      srcLang={c.language}
      label={languageWords(c.language)}
    />
  ));

/** The room as it was at a moment of the recording: the same reducer that made it. */
function useReplay(recording: RecordingDetail, position: number) {
  const replay = useMemo(
    () => new Replay(recording.events, recording.parts),
    [recording.events, recording.parts],
  );
  return useMemo(() => replay.at(position), [replay, position]);
}

/** What each tool of the room shows of that moment. */
function Replays({ where, ...shown }: ReplayProps & { where: 'under' | 'beside' }) {
  return REPLAYS.filter((r) => r.where === where).map(({ id, Replay: Shown }) => (
    <Shown key={id} {...shown} />
  ));
}

function Gaps({ gaps }: { gaps: Gap[] }) {
  return gaps.map((g) => (
    <Text size="sm" key={g.position} mt="xs" c="dimmed">
      At {lengthWords(g.position)}:{' '}
      {g.why === 'paused'
        ? `the recording was paused for ${lengthWords(g.missing)}.`
        : `${countWords(Math.round(g.missing / 1000), 'second')} are missing, because the server was away.`}
    </Text>
  ));
}

function DownloadButton({ recording }: { recording: RecordingDetail }) {
  if (!recording.mayDownload)
    return (
      <Text size="sm" c="dimmed">
        Downloads of this recording are off.
      </Text>
    );
  return (
    <Button component="a" href={recording.mediaPath.replace('/media?', '/download?')} variant="default">
      Download
    </Button>
  );
}
