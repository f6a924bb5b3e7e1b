import { lazy, Suspense, useEffect, useRef, useState, type ComponentProps, type RefObject } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { pastSilence } from '@nimble-bell/core/watching';
import { TimeLine } from '../time/TimeLine';
import { Captions } from './Captions';
import { PlayerBar } from './PlayerBar';
import { Seen } from './Seen';
import { VIEWS } from './seen';
import { useFilmKeys, type FilmActs } from './useFilmKeys';
import { SPEEDS, useKept, type Keep } from './useKept';
import type { Film as FilmActions } from './useMedia';
import { useFailed } from './useFailed';
import { useSteady } from './useSteady';

const KeyList = lazy(() => import('./KeyList'));
const STEP_MS = 10_000;

interface FilmProps {
  recording: RecordingDetail;
  element: RefObject<HTMLAudioElement | null>;
  film: FilmActions;
  position: number;
  /** The film is at a moment, ms. */
  at: (ms: number) => void;
  stood: () => void;
  goTo: (ms: number) => void;
  resumed: number | null;
  note: () => void;
  /** Where the recording is asked for. */
  from: string;
  /** The picture stands: what one does with it is drawn after that. */
  painted?: boolean;
}

/** The film of a recording: its sound, what is seen with it, its captions below, its time, and what one does with it. */
export function Film(props: FilmProps) {
  const { recording, element, film, position, at, stood } = props;
  const { goTo, resumed, note, from, painted = true } = props;
  const { played, failed } = useSteady(recording, film, from);
  useFailed(element, failed);
  const [kept, keep] = useKept();
  const [playing, setPlaying] = useState(false);
  const [listing, setListing] = useState(false);
  const seen = useRef<HTMLDivElement>(null);
  useEffect(() => film.speed(kept.speed), [film, kept.speed]);
  useEffect(() => film.volume(kept.volume), [film, kept.volume]);
  const whole = () =>
    void (document.fullscreenElement ? document.exitFullscreen() : seen.current?.requestFullscreen?.());
  const acts = useActs({ recording, film, position, goTo, keep, whole, note, keys: () => setListing(true) });
  useFilmKeys(acts);
  const heard = (ms: number) => {
    at(ms);
    const past = kept.silences && !film.paused() ? pastSilence(recording.silences, ms) : null;
    if (past !== null) film.seek(past);
  };
  const said = <Captions recording={recording} kept={kept} position={position} />;
  return (
    <>
      <Sound
        {...{ element, title: recording.title, heard, at, failed, playing: setPlaying, stood }}
        path={played.mediaPath}
        ready={() => film.speed(kept.speed)}
      />
      {kept.place === 'above' && said}
      <Seen
        pictures={played.pictures}
        view={kept.view}
        position={position}
        film={film}
        whole={seen}
        {...{ recording, failed }}
      />
      {kept.place === 'below' && said}
      {painted && (
        <Handling
          {...{ recording, film, playing, position, kept, keep, resumed, whole, goTo }}
          pictures={played.pictures}
          keys={() => setListing(true)}
        />
      )}
      {listing && (
        <Suspense>
          <KeyList close={() => setListing(false)} />
        </Suspense>
      )}
    </>
  );
}

/** Its time, and what one does with it. */
const Handling = ({
  goTo,
  pictures,
  ...bar
}: ComponentProps<typeof PlayerBar> & Pick<ComponentProps<typeof TimeLine>, 'goTo' | 'pictures'>) => (
  <>
    <TimeLine recording={bar.recording} position={bar.position} {...{ pictures, goTo }} />
    <PlayerBar {...bar} />
  </>
);

interface SoundProps {
  element: RefObject<HTMLAudioElement | null>;
  path: string;
  title: string;
  heard: (ms: number) => void;
  at: (ms: number) => void;
  playing: (is: boolean) => void;
  stood: () => void;
  ready: () => void;
  failed: () => void;
}

/** The sound, which leads. */
const Sound = ({ element, path, title, heard, at, playing, stood, ready, failed }: SoundProps) => (
  <audio
    ref={element}
    src={path}
    preload="metadata"
    aria-label={`Recording of ${title}`}
    onTimeUpdate={(e) => heard(e.currentTarget.currentTime * 1000)}
    onSeeked={(e) => at(e.currentTarget.currentTime * 1000)}
    onLoadedMetadata={ready}
    onPlay={() => playing(true)}
    onPause={() => {
      playing(false);
      stood();
    }}
    onError={failed}
  />
);

interface Acting {
  recording: RecordingDetail;
  film: FilmActions;
  position: number;
  goTo: (ms: number) => void;
  keep: Keep;
  whole: () => void;
  note: () => void;
  keys: () => void;
}

/** What the keys do. */
function useActs({ recording, film, position, goTo, keep, whole, note, keys }: Acting): FilmActs {
  const { chapters, captions } = recording;
  const pace = (by: number) => () =>
    keep(({ speed }) => {
      const next = SPEEDS.findIndex((s) => s === speed) + by;
      return { speed: SPEEDS[Math.max(0, Math.min(SPEEDS.length - 1, next))]! };
    });
  const chapter = (by: number) => () => {
    const on = chapters.findLastIndex((c) => c.position <= position + 500);
    const next = chapters[Math.max(0, on + by)];
    if (next) goTo(next.position);
  };
  return {
    ' ': film.toggle,
    ArrowLeft: () => film.seek(film.now() - STEP_MS),
    ArrowRight: () => film.seek(film.now() + STEP_MS),
    ',': pace(-1),
    '.': pace(1),
    '[': chapter(-1),
    ']': chapter(1),
    c: () => keep((k) => ({ captions: k.captions ? '' : (captions[0]?.language ?? '') })),
    s: () => keep((k) => ({ silences: !k.silences })),
    v: () => keep((k) => ({ view: VIEWS[(VIEWS.indexOf(k.view) + 1) % VIEWS.length]! })),
    w: whole,
    n: note,
    '?': keys,
  };
}
