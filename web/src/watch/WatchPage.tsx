import { Button, Container, Loader, Text, Title } from '@mantine/core';
import { useContext, useDeferredValue } from 'react';
import { Link, useParams } from 'react-router';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { Bar } from '../app/Bar';
import { Shell } from '../app/Shell';
import { useAbout } from '../app/title';
import { LinkContext } from '../app/api';
import { useAsked, stopOf } from '../app/queries';
import { Fault } from '../ui/Fault';
import { CutLink } from './CutLink';
import { Player } from './Player';
import { preparingWords } from './words';

/** Whether it is there yet is asked so often, ms. */
const PREPARING_MS = 2000;

/** A recording: its sound and picture, and what was written and drawn, replayed in time from the room's own events. */
export function WatchPage() {
  const { recording: id, code } = useParams();
  const link = useContext(LinkContext);
  const detail = useAsked<RecordingDetail>(`/recordings/${id}`, {
    every: (known) => (known?.state === 'preparing' ? PREPARING_MS : 0),
  });
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
  const body =
    shown.state === 'ready' ? (
      <Player recording={shown} from={`/recordings/${id}`} />
    ) : (
      <>
        <Title order={1} size="h2">
          {shown.title}
        </Title>
        <Text role="status">{preparingWords(shown)}</Text>
        {shown.caring && <CutLink recording={shown.id} />}
      </>
    );
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
