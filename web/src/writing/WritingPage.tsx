import { Container, Loader, Stack, Text, Title } from '@mantine/core';
import { lazy, Suspense } from 'react';
import { useParams } from 'react-router';
import type { SessionDetail } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { Bar } from '../app/Bar';
import { stopOf, useAsked } from '../app/queries';
import { useAbout } from '../app/title';
import ClassNotes from '../ui/ClassNotes';
import { Fault } from '../ui/Fault';
import { WritingPanel } from './WritingPanel';

// Where something was drawn.
const ClassBoards = lazy(() => import('../ui/ClassBoards'));

/** What is written around one session, by a student's link. */
export function WritingPage() {
  const { code, session: id } = useParams();
  const detail = useAsked<SessionDetail>(`/sessions/${id}`);
  const { session, course, zone, member } = detail.data ?? {};
  useAbout(session && `${course!.code} ${session.seriesTitle} ${session.number}`);
  const stop = stopOf(detail);
  if (stop) return <Fault error={stop} />;
  return (
    <>
      <Bar home={`/in/${code}`} />
      <Container size="sm" py="lg" component="main" id="content">
        {!session ? (
          <Loader aria-label="Loading the session" />
        ) : (
          <>
            <Title order={1} size="h2">
              {session.seriesTitle} {session.number}
              {session.title && `: ${session.title}`}
            </Title>
            <Text c="dimmed" mb="md" className="figures">
              {course!.code}, {instantWords(session.startsAt, zone!)}
            </Text>
            <Stack>
              <WritingPanel
                session={session.id}
                me={member!}
                teaching={false}
                zone={zone!}
                held={session.state === 'held'}
              />
              <ClassNotes session={session.id} name={`${session.seriesTitle} ${session.number}`} />
              {session.state === 'held' && (
                <Suspense>
                  <ClassBoards session={session.id} name={`${session.seriesTitle} ${session.number}`} />
                </Suspense>
              )}
            </Stack>
          </>
        )}
      </Container>
    </>
  );
}
