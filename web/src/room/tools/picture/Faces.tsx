import { useSyncExternalStore } from 'react';
import { Picture } from '../../live/Playback';
import { useMe, useNameOf, useRoom } from '../../live/useRoom';
import stage from '../../frame/stage.module.css';
import classes from './picture.module.css';

/** Everybody's picture who is where one is, side by side, each as large as that goes. */
export function Faces() {
  const { call } = useRoom();
  const { member: me } = useMe();
  const nameOf = useNameOf();
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  const faces = tracks.filter((t) => t.kind === 'camera');
  if (!faces.length)
    return (
      <div className={stage.stageEmpty}>
        <p>No camera is on at this table.</p>
      </div>
    );
  const columns = Math.ceil(Math.sqrt(faces.length));
  return (
    <div
      className={classes.faces}
      style={{
        gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
        gridTemplateRows: `repeat(${Math.ceil(faces.length / columns)}, minmax(0, 1fr))`,
      }}
    >
      {faces.map(({ member, track }) => (
        <figure key={member} className={classes.figure}>
          <Picture track={track} className={classes.mainPicture} label={`${nameOf(member)}, camera`} />
          <figcaption>{member === me ? 'You' : nameOf(member)}</figcaption>
        </figure>
      ))}
    </div>
  );
}
