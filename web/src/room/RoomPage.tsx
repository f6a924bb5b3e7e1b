import { Button, Loader, Text } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { lazy, Suspense, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { teaches } from '@nimble-bell/core/roster';
import { Desk } from './desk/Desk';
import { Keys } from './controls/Keys';
import { TryDevices } from './door/TryDevices';
import { FloorPanel } from './floor/FloorPanel';
import { YourTurn } from './floor/YourTurn';
import { Statements } from './floor/Statements';
import { Alone } from './frame/Alone';
import { apart, isPeople } from './frame/apart';
import { Consent } from './frame/Consent';
import { Away } from './frame/Away';
import { Doorway, WayBack } from './frame/Doorway';
import { Over } from './frame/Over';
import { Stage } from './frame/Stage';
import { Unheard } from './frame/Unheard';
import { Weak } from './frame/Weak';
import classes from './frame/frame.module.css';
import { Aloud } from './heard/Aloud';
import { Comings } from './heard/Comings';
import { RecordingBell } from './heard/RecordingBell';
import { Voices } from './live/Playback';
import type { RoomConnection } from './live/connection';
import { useConnection, useStanding } from './live/useConnection';
import { RoomContext, useInfo, useTeaching } from './live/useRoom';
import { RunSheetBar } from './runSheet/RunSheetBar';
import { Seats } from './seats/Seats';
import { useAbout } from '../app/title';
import { Captions } from './tools/captions/Captions';
import { HeldUp } from './tools/HeldUp';
import { PANELS } from './tools/registry';

// Not in every class.
const Thought = lazy(() => import('../after/Thought'));
const RehearsalStrip = lazy(() => import('./rehearsal/RehearsalStrip'));
const RehearsalOver = lazy(() => import('./rehearsal/RehearsalOver'));
const Porch = lazy(() => import('./door/Porch').then((m) => ({ default: m.Porch })));

/** The room. A page opened straight at it asks for one press first: browsers play no sound before. */
export function RoomPage() {
  const { session } = useParams();
  const [search] = useSearchParams();
  const tries = search.has('try');
  const [entered, setEntered] = useState(
    isPeople() || (!tries && (navigator.userActivation?.hasBeenActive ?? false)),
  );
  if (!entered)
    return (
      <Doorway title="The room is behind this door">
        <Button size="lg" onClick={() => setEntered(true)} autoFocus>
          Enter the room
        </Button>
        <TryDevices at={tries} />
        {tries && <WayBack info={null} />}
      </Doorway>
    );
  return <Room key={session} session={session!} />;
}

function Room({ session }: { session: string }) {
  const { tools, connection } = useConnection(session);
  const { status, refusal, porch, phase, shut } = useStanding(connection);
  if (status === 'porch' && porch)
    return (
      <Suspense>
        <Porch porch={porch} />
      </Suspense>
    );
  if (status === 'refused')
    return (
      <Doorway title={phase ? 'You are not in the room any more' : 'The door is shut'}>
        <Text ta="center" role="status">
          {refusal}
        </Text>
        {shut && (
          <>
            <Text size="sm" c="dimmed" ta="center">
              It opens here by itself; you need not press anything.
            </Text>
            <TryDevices />
          </>
        )}
        <WayBack info={connection.view.info} />
      </Doorway>
    );
  if (phase === 'dismissed') return <Dismissed connection={connection} />;
  if (!phase)
    return (
      <Doorway title="Entering">
        <Loader />
      </Doorway>
    );
  return (
    <RoomContext value={tools}>
      <RoomFrame />
    </RoomContext>
  );
}

function Dismissed({ connection }: { connection: RoomConnection }) {
  const { state, info } = connection.view;
  if (info?.rehearsal)
    return (
      <Suspense>
        <RehearsalOver session={info.session.id} />
      </Suspense>
    );
  return (
    <Doorway title="The class is dismissed">
      <Text ta="center" maw={420}>
        {state?.recording.began
          ? 'Everybody is out. The recording is being prepared and will be on the course page in a moment.'
          : 'Everybody is out.'}
      </Text>
      {info && !teaches(info.me.role) && (
        <Suspense>
          <Thought session={info.session.id} />
        </Suspense>
      )}
      <WayBack info={info} />
    </Doorway>
  );
}

/** Seats and talk alone, in a window of their own; nothing is heard here twice. */
function People() {
  const { course } = useInfo();
  return (
    <div className={classes.frame} data-part="people">
      <main className={classes.middle} id="content">
        <h1 className={classes.people}>{course.code}: who is here, and talk</h1>
        <div className={classes.under}>
          <Seats />
        </div>
      </main>
      {PANELS.map(({ id, Panel }) => (
        <Panel key={id} />
      ))}
    </div>
  );
}

/** The room's page itself, for whoever stands in its context. */
export function RoomFrame() {
  const { course, session, rehearsal } = useInfo();
  useAbout(`${course.code} ${session.seriesTitle} ${session.number}`);
  const teaching = useTeaching();
  // What is read and walked is in the order in which it is drawn.
  const narrow = useMediaQuery('(max-width: 760px), (max-height: 500px) and (min-width: 600px)');
  const alone = apart.use();
  if (isPeople()) return <People />;
  const floor = teaching ? <FloorPanel key="floor" /> : <Statements key="floor" />;
  const middle = [
    <main key="middle" className={classes.middle} id="content">
      {rehearsal && (
        <Suspense>
          <RehearsalStrip />
        </Suspense>
      )}
      <Away />
      <Alone />
      <Over />
      <Unheard />
      <Weak />
      <Consent />
      <YourTurn />
      <HeldUp />
      <Captions at="above" />
      <Stage />
      <Captions at="below" />
      <Comings />
      <div className={classes.under}>
        <Desk />
        {!alone && <Seats />}
      </div>
    </main>,
    ...(alone ? [] : PANELS).map(({ id, Panel }) => <Panel key={id} />),
  ];
  return (
    <div className={classes.frame} data-teaching={teaching} data-part={alone ? 'stage' : undefined}>
      <a className="skip-link" href="#content">
        Go to the stage
      </a>
      <RunSheetBar />
      {narrow ? [...middle, floor] : [floor, ...middle]}
      <Voices />
      <Aloud />
      <RecordingBell />
      <Keys />
    </div>
  );
}
