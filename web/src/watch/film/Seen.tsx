import { useMemo, type RefObject } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { namesIn } from '@nimble-bell/core/room';
import { Follower } from './Follower';
import type { Film } from './useMedia';
import { seenAt, type SeenPicture, type View } from './seen';
import classes from './film.module.css';

interface SeenProps {
  pictures: readonly SeenPicture[];
  view: View;
  position: number;
  film: Film;
  whole: RefObject<HTMLDivElement | null>;
  recording: Pick<RecordingDetail, 'title' | 'events'>;
  failed: () => void;
}

/** What is seen of a recording: what is presented large, the camera beside it; nothing lies over them. */
export function Seen({ pictures, view, position, film, whole, recording, failed }: SeenProps) {
  const { title, events } = recording;
  const nameOf = useMemo(() => namesIn(events), [events]);
  const { large, beside } = seenAt(pictures, view, position);
  const of = ({ kind, member }: SeenPicture) =>
    `${kind === 'screen' ? 'Screen' : 'Camera'} of ${member ? nameOf(member) : title}`;
  return (
    <div className={classes.seen} ref={whole} data-two={beside !== null || large.length > 1}>
      {large.map((picture) => (
        <Follower
          key={picture.path}
          {...{ picture, film, failed }}
          className={classes.large}
          label={of(picture)}
        />
      ))}
      {large.length === 0 && (
        <p className={classes.nothing} data-waits={pictures.length > 0}>
          {pictures.length ? 'Nothing was shown at this moment.' : 'This recording is sound alone.'}
        </p>
      )}
      {beside && (
        <Follower
          key={beside.path}
          picture={beside}
          {...{ film, failed }}
          className={classes.beside}
          label={of(beside)}
        />
      )}
    </div>
  );
}
