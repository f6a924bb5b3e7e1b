import { lazy, Suspense, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { pastSilence } from '@nimble-bell/core/watching';
import { TimeLine } from '../time/TimeLine';
import { useCues } from '../useCues';
import { PlayerBar } from './PlayerBar';
import { Seen } from './Seen';
import { VIEWS } from './seen';
import { useFilmKeys, type FilmActs } from './useFilmKeys';
import { SPEEDS, useKept, type Keep, type Kept } from './useKept';
import type { Film as FilmActions } from './useMedia';
import { useSteady } from './useSteady';
import classes from './film.module.css';

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
}

/** The film of a recording: its sound, what is seen with it, its captions below, its time, and what one does with it. */
export function Film({ recording, element, film, position, at, stood, goTo, resumed, note }: FilmProps) {
  const { played, failed } = useSteady(recording, film);
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
  return (
    <>
      <audio
        ref={element}
        src={played.mediaPath}
        preload="metadata"
        aria-label={`Recording of ${recording.title}`}
        onTimeUpdate={(e) => heard(e.currentTarget.currentTime * 1000)}
        onSeeked={(e) => at(e.currentTarget.currentTime * 1000)}
        onLoadedMetadata={() => film.speed(kept.speed)}
        onPlay={() => setPlaying(true)}
        onPause={() => {
          setPlaying(false);
          stood();
        }}
        onError={failed}
      />
      <Seen
        pictures={played.pictures}
        view={kept.view}
        position={position}
        film={film}
        whole={seen}
        title={recording.title}
      />
      <Captions recording={recording} kept={kept} position={position} />
      <TimeLine recording={recording} pictures={played.pictures} position={position} goTo={goTo} />
      <PlayerBar
        {...{ recording, film, playing, position, kept, keep, resumed, whole }}
        keys={() => setListing(true)}
      />
      {listing && (
        <Suspense>
          <KeyList close={() => setListing(false)} />
        </Suspense>
      )}
    </>
  );
}

/** What is said at this moment, below the picture. */
function Captions({
  recording: { captions },
  kept,
  position,
}: {
  recording: RecordingDetail;
  kept: Kept;
  position: number;
}) {
  const chosen = useMemo(
    () => captions.filter((c) => c.language === kept.captions),
    [captions, kept.captions],
  );
  const cues = useCues(chosen);
  if (!chosen[0]) return null;
  const said = cues.filter((c) => c.from <= position && position < c.until);
  return (
    <p
      className={classes.captions}
      data-size={kept.size}
      lang={chosen[0].language}
      dir="auto"
      data-testid="captions"
    >
      {said.map((c) => c.text).join('\n')}
    </p>
  );
}

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
