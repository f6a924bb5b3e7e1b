import { Anchor, Paper, Text } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { positionIn, type Film } from '@nimble-bell/core/room';
import type { ReplayProps } from '../replay';
import { bring } from './follow';
import classes from './film.module.css';

const LOOK_MS = 250;

/** The film where the class was in it, running with the recording; and the address that was open. */
export default function FilmThen({ room, films, clock }: ReplayProps) {
  const { on, card } = room.film;
  return (
    <Paper withBorder mt="sm" p="xs" component="section" aria-label="Watched in class">
      {on && films && <Watched key={on.material} film={on} {...{ films, clock }} />}
      {on && <Text size="sm">{on.name}</Text>}
      {card && (
        <Anchor href={card.url} target="_blank" rel="noreferrer noopener" size="sm">
          {card.title}
        </Anchor>
      )}
    </Paper>
  );
}

interface WatchedProps extends Pick<ReplayProps, 'clock'> {
  film: Film;
  films: NonNullable<ReplayProps['films']>;
}

function Watched({ film, films, clock }: WatchedProps) {
  const element = useRef<HTMLVideoElement>(null);
  const [gone, setGone] = useState(false);
  useEffect(() => {
    const look = (jumped: boolean) => {
      const video = element.current;
      if (!video || video.readyState < 1) return;
      const to = positionIn(film, clock.now()) / 1000;
      bring(video, to, film.playing && clock.plays(), { jumped, pace: clock.pace() });
    };
    look(true);
    const timer = setInterval(() => look(false), LOOK_MS);
    return () => clearInterval(timer);
  }, [film, clock]);
  if (gone) return <Text size="sm">This film is not among the files of the course any more.</Text>;
  return (
    <video
      ref={element}
      src={`${films.path}/${film.material}${films.query}`}
      className={classes.then}
      playsInline
      preload="auto"
      aria-label={film.name}
      onError={() => setGone(true)}
    />
  );
}
