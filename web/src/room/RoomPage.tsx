import { Button, Loader, Stack, Text, Title } from '@mantine/core';
import { useContext, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { RoomInfo } from '@nimble-bell/core/api';
import { LinkContext } from '../app/api';
import { BellMark } from '../app/Bar';
import { Desk } from './Desk';
import { FloorPanel } from './FloorPanel';
import { RunSheetBar } from './RunSheetBar';
import { Seats } from './Seats';
import { Stage } from './Stage';
import { Statements } from './Statements';
import { TalkPanel } from './TalkPanel';
import { Voices } from './Playback';
import { RoomContext, toolsOf, useConnection, type RoomTools } from './useRoom';
import classes from './room.module.css';

/** The room. A page opened straight at it asks for one press first: browsers play no sound before. */
export function RoomPage() {
  const { session } = useParams();
  const [entered, setEntered] = useState(navigator.userActivation?.hasBeenActive ?? false);
  if (!entered)
    return (
      <Doorway title="The room is behind this door">
        <Button size="lg" onClick={() => setEntered(true)} autoFocus>
          Enter the room
        </Button>
      </Doorway>
    );
  return <Room key={session} session={session!} />;
}

function Room({ session }: { session: string }) {
  const { view, connection, call } = useConnection(session);
  const tools = toolsOf(connection, call, view);
  if (view.status === 'refused')
    return (
      <Doorway title={tools ? 'You have left the room' : 'The door is shut'}>
        <Text ta="center">{view.refusal}</Text>
        <WayBack info={view.info} />
      </Doorway>
    );
  if (!tools)
    return (
      <Doorway title="Entering">
        <Loader />
      </Doorway>
    );
  if (tools.state.phase === 'dismissed')
    return (
      <Doorway title="The class is dismissed">
        <Text ta="center" maw={420}>
          {tools.state.rangInAt && tools.info.records
            ? 'Everybody is out. The recording is being prepared and will be on the course page in a moment.'
            : 'Everybody is out.'}
        </Text>
        <WayBack info={view.info} />
      </Doorway>
    );
  return (
    <RoomContext value={tools}>
      <RoomFrame tools={tools} />
    </RoomContext>
  );
}

function RoomFrame({ tools }: { tools: RoomTools }) {
  useHushKey(tools);
  const { view, teaching } = tools;
  return (
    <div className={classes.frame} data-teaching={teaching}>
      <title>{`${tools.info.course.code} in class – Nimble Bell`}</title>
      <RunSheetBar />
      <aside className={classes.floor} aria-label={teaching ? 'The floor' : 'What you may do'}>
        {teaching ? <FloorPanel /> : <Statements />}
      </aside>
      <main className={classes.middle} id="content">
        {view.status === 'away' && (
          <div className={classes.away} role="alert">
            The connection is lost. It comes back by itself; nothing you wrote is lost.
          </div>
        )}
        {view.status === 'in' && !view.relay && (
          <div className={classes.away} role="status">
            Sound and picture are away for the moment. Talk and everything else go on.
          </div>
        )}
        <Stage />
        <div className={classes.under}>
          <Desk />
          <Seats />
        </div>
      </main>
      <TalkPanel />
      <Voices />
    </div>
  );
}

/** H closes everything, and lifts it again; not while somebody types. */
function useHushKey({ teaching, state, send }: RoomTools) {
  useEffect(() => {
    if (!teaching) return;
    const press = (e: KeyboardEvent) => {
      const typing = (e.target as HTMLElement).closest('input, textarea, [contenteditable]');
      if (typing || e.ctrlKey || e.metaKey || e.altKey || e.key.toLowerCase() !== 'h') return;
      e.preventDefault();
      void send({ type: state.hush ? 'lift' : 'hush' });
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [teaching, state.hush, send]);
}

/** Back to where one came from: a student's page, or the session with its roll and recording. */
function WayBack({ info }: { info: RoomInfo | null }) {
  const link = useContext(LinkContext);
  const { code } = useParams();
  const [to, words] = link
    ? [`/in/${code}`, 'To the course page']
    : info
      ? [`/course/${info.course.id}/session/${info.session.id}`, 'To the session']
      : ['/courses', 'To your courses'];
  return (
    <Button component={Link} to={to} variant="default">
      {words}
    </Button>
  );
}

function Doorway({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Stack component="main" align="center" justify="center" mih="100vh" p="lg" bg="var(--paper)" gap="md">
      <div className={classes.doorMark}>
        <BellMark size={40} />
      </div>
      <Title order={1} size="h2" ta="center">
        {title}
      </Title>
      {children}
    </Stack>
  );
}
