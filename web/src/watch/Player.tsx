import { Group, Stack, Text, Title } from '@mantine/core';
import { lazy, Suspense, useMemo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { instantAt, Replay, type Gap } from '@nimble-bell/core/recording';
import { namesIn } from '@nimble-bell/core/room';
import { usePainted } from '../app/usePainted';
import type { ReplayProps } from '../room/tools/replay';
import { REPLAYS } from '../room/tools/replays';
import { Chapters } from './Chapters';
import { CutLink } from './CutLink';
import { SearchPanel } from './SearchPanel';
import { useCues } from './useCues';
import { Film } from './film/Film';
import { useMedia, type Film as FilmActions } from './film/useMedia';
import { useWatched } from './useWatched';
import { lengthWords } from './words';
import classes from './watch.module.css';

const TakeAlong = lazy(() => import('./TakeAlong'));
const Notes = lazy(() => import('./Notes'));
const ClassNotes = lazy(() => import('../ui/ClassNotes'));
const TableSounds = lazy(() => import('./TableSounds'));
// For those who teach alone.
const ChaptersPanel = lazy(() => import('./ChaptersPanel'));
const CaptionsPanel = lazy(() => import('./CaptionsPanel'));
const CarePanel = lazy(() => import('./CarePanel'));
const WhoMay = lazy(() => import('./WhoMay'));
const SharePanel = lazy(() => import('./SharePanel'));
const WatchersPanel = lazy(() => import('./WatchersPanel'));

/** A recording: its sound and picture, what was written and drawn replayed in time, and what leads about in it. */
export function Player({ recording, from }: { recording: RecordingDetail; from: string }) {
  const { element, film } = useMedia();
  const [position, setPosition] = useState(0);
  const goTo = (ms: number) => {
    film.seek(ms);
    film.play();
  };
  const [search] = useSearchParams();
  const asked = Number(search.get('at') || NaN);
  const watched = useWatched(recording, film, asked >= 0 ? asked * 1000 : null);
  const painted = usePainted();
  const note = () => document.getElementById('note-here')?.focus();
  return (
    <Stack>
      <Head recording={recording} />
      <div className={classes.columns}>
        <div>
          <Film
            {...{ recording, element, film, position, goTo, note, from, painted }}
            at={(ms) => {
              setPosition(ms);
              watched.played(ms);
            }}
            stood={watched.say}
            resumed={watched.resumed}
          />
        </div>
        {painted && <Around {...{ recording, position, film, goTo }} />}
      </div>
      <Suspense>{painted && recording.tables?.length !== 0 && <TableSounds of={recording} />}</Suspense>
      <Suspense>{painted && recording.mayDownload && <TakeAlong recording={recording} />}</Suspense>
      {painted && recording.teaching && <ForTeachers {...{ recording, position, film }} />}
    </Stack>
  );
}

interface AroundProps extends ForTeachersProps {
  goTo: (ms: number) => void;
}

/** The room of that moment, under the film and then beside it, and what leads about in the recording. */
function Around({ recording, position, film, goTo }: AroundProps) {
  const room = useReplay(recording, position);
  const { zone, parts, pages, films, sessionId: session } = recording;
  const clock = useMemo(
    () => ({
      now: () => instantAt(parts, film.now()),
      plays: () => !film.paused(),
      pace: film.pace,
    }),
    [parts, film],
  );
  const nameOf = useMemo(() => namesIn(recording.events), [recording.events]);
  const moment = { room, zone, at: instantAt(parts, position), session, pages, films, clock, nameOf };
  const painted = usePainted();
  const further = usePainted(painted);
  if (!painted) return null;
  return (
    <>
      <div>
        <Replays where="under" {...moment} />
        <Gaps gaps={recording.gaps} />
        <Chapters of={recording.chapters} position={position} goTo={goTo} />
      </div>
      {further && (
        <Beside {...{ recording, position, film, goTo, nameOf }}>
          <Replays where="beside" {...moment} />
        </Beside>
      )}
    </>
  );
}

interface BesideProps extends AroundProps {
  nameOf: (member: string) => string;
  /** The room of that moment. */
  children: ReactNode;
}

/** What leads about in a recording, and what was written in it. */
function Beside({ recording, position, film, goTo, nameOf, children }: BesideProps) {
  const cues = useCues(recording.captions);
  return (
    <div className={classes.aside}>
      {(!recording.shared || cues.length > 0) && <SearchPanel {...{ recording, cues, nameOf, goTo }} />}
      {!recording.shared && (
        <>
          {children}
          <Suspense>
            <Notes {...{ recording, position, film, goTo }} />
          </Suspense>
          {!recording.leavesOut.includes('notes') && (
            <Suspense>
              <ClassNotes
                session={recording.sessionId}
                name={recording.title}
                beside={{ recording: recording.id, at: instantAt(recording.parts, position) }}
              />
            </Suspense>
          )}
        </>
      )}
    </div>
  );
}

interface ForTeachersProps {
  recording: RecordingDetail;
  position: number;
  film: FilmActions;
}

const ForTeachers = (props: ForTeachersProps) => (
  <Suspense>
    <ChaptersPanel {...props} />
    <CaptionsPanel {...props} />
    <WatchersPanel recording={props.recording} />
    {props.recording.caring && <WhoMay recording={props.recording} />}
    {props.recording.caring && <SharePanel recording={props.recording} />}
    {props.recording.caring && <CarePanel recording={props.recording} position={props.position} />}
  </Suspense>
);

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
      {recording.caring && <CutLink recording={recording.id} />}
      {!recording.mayDownload && !recording.shared && (
        <Text size="sm" c="dimmed">
          Downloads of this recording are off.
        </Text>
      )}
    </Group>
  );
}

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

const gapWords = ({ why, missing }: Gap): string => {
  if (why === 'paused') return `the recording was paused for ${lengthWords(missing)}.`;
  if (why === 'tables') return `the class was at tables for ${lengthWords(missing)}.`;
  if (why === 'cut') return `${lengthWords(missing)} were left out.`;
  return `${countWords(Math.round(missing / 1000), 'second')} are missing, because the server was away.`;
};

function Gaps({ gaps }: { gaps: Gap[] }) {
  return gaps.map((g) => (
    <Text size="sm" key={g.position} mt="xs" c="dimmed">
      At {lengthWords(g.position)}: {gapWords(g)}
    </Text>
  ));
}
