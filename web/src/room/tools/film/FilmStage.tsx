import { Button, Slider } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { FilmAddress } from '@nimble-bell/core/api';
import { lengthWords } from '@nimble-bell/core/calendar';
import { positionIn, type Film } from '@nimble-bell/core/room';
import { serverNow, useNow } from '../../../app/clock';
import { useAsked } from '../../../app/queries';
import { Fault } from '../../../ui/Fault';
import stage from '../../frame/stage.module.css';
import { useInfo, useInside, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import { bring } from './follow';
import classes from './film.module.css';

const select = ({ room }: Inside) => room.film.on;
const LOOK_MS = 250;

/** The film that everybody watches: it is for each where it is for all. */
export default function FilmStage() {
  const film = useInside(select, Object.is);
  if (!film)
    return (
      <div className={stage.stageEmpty}>
        <p>No film is shown.</p>
      </div>
    );
  return <Shown key={film.material} film={film} />;
}

function Shown({ film }: { film: Film }) {
  const { session } = useInfo();
  const teaching = useTeaching();
  const address = useAsked<FilmAddress>(`/sessions/${session.id}/film?of=${film.material}`);
  const element = useRef<HTMLVideoElement>(null);
  const [length, setLength] = useState<number | null>(null);
  const [silent, setSilent] = useState(false);
  useFollowing(element, film, setSilent);
  if (address.error) return <Fault error={address.error} />;
  return (
    <div className={classes.stage} data-own-height>
      {address.data && (
        <video
          ref={element}
          src={address.data.path}
          className={classes.film}
          playsInline
          preload="auto"
          aria-label={film.name}
          onLoadedMetadata={(e) => setLength(1000 * e.currentTarget.duration)}
        />
      )}
      {silent && (
        <Button
          className={classes.aloud!}
          onClick={() => {
            element.current!.muted = false;
            setSilent(false);
          }}
        >
          Hear it
        </Button>
      )}
      <Bar film={film} length={length} teaching={teaching} />
    </div>
  );
}

/** Keeps a page's film where the class is. A browser that plays no sound without a press plays it silently, and says so. */
function useFollowing(
  element: { current: HTMLVideoElement | null },
  film: Film,
  setSilent: (silent: boolean) => void,
) {
  useEffect(() => {
    const look = (jumped: boolean) => {
      const video = element.current;
      if (!video || video.readyState < 1) return;
      const refused = (error: DOMException) => {
        if (error.name !== 'NotAllowedError' || video.muted) return;
        video.muted = true;
        setSilent(true);
      };
      bring(video, positionIn(film, serverNow()) / 1000, film.playing, { jumped, refused });
    };
    look(true);
    const timer = setInterval(() => look(false), LOOK_MS);
    return () => clearInterval(timer);
  }, [element, film, setSilent]);
}

function Bar({ film, length, teaching }: { film: Film; length: number | null; teaching: boolean }) {
  const now = useNow(500);
  const at = Math.min(positionIn(film, now), length ?? Infinity);
  return (
    <div className={classes.bar}>
      <strong>{film.name}</strong>
      <span className="figures">
        {lengthWords(at)}
        {length !== null && ` of ${lengthWords(length)}`}
      </span>
      {teaching ? (
        <Leading {...{ film, length, at }} />
      ) : (
        <span role="status">{film.playing ? '' : 'It is held for a moment.'}</span>
      )}
    </div>
  );
}

function Leading({ film, length, at }: { film: Film; length: number | null; at: number }) {
  const { send } = useRoom();
  const [dragged, setDragged] = useState<number | null>(null);
  const set = (playing: boolean, position: number) =>
    void send({ type: 'playFilm', playing, position: Math.max(0, Math.min(position, length ?? position)) });
  const here = () => positionIn(film, serverNow());
  const over = length !== null && at >= length;
  return (
    <>
      <Button size="compact-sm" onClick={() => set(!film.playing || over, over ? 0 : here())}>
        {film.playing && !over ? 'Hold it' : 'Play it'}
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => set(film.playing, here() - 10_000)}>
        10 s back
      </Button>
      {length !== null && (
        <Slider
          className={classes.slider!}
          size="sm"
          min={0}
          max={length}
          step={1000}
          label={(ms) => lengthWords(ms)}
          thumbLabel="Where the film is"
          value={dragged ?? at}
          onChange={setDragged}
          onChangeEnd={(position) => {
            setDragged(null);
            set(film.playing, position);
          }}
        />
      )}
      <Button size="compact-sm" variant="default" onClick={() => void send({ type: 'putFilmAway' })}>
        Put it away
      </Button>
    </>
  );
}
