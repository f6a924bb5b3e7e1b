import { Container } from '@mantine/core';
import { useDeferredValue } from 'react';
import { useParams } from 'react-router';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { Bar } from '../app/Bar';
import { Shell } from '../app/Shell';
import { stopOf, useAsked } from '../app/queries';
import { useAbout } from '../app/title';
import { Fault } from '../ui/Fault';
import { Player } from './Player';

/** A recording by a link that anybody may have. */
export function SharedPage() {
  const { code } = useParams();
  const detail = useAsked<RecordingDetail>(`/shared/${code}`);
  useAbout(detail.data?.title);
  const shown = useDeferredValue(detail.data);
  const stop = stopOf(detail);
  if (stop) return <Fault error={stop} />;
  if (!shown) return <Shell label="Loading the recording" />;
  return (
    <>
      <Bar home="/" />
      <Container size="xl" py="lg" component="main" id="content">
        <Player recording={shown} from={`/shared/${code}`} />
      </Container>
    </>
  );
}
