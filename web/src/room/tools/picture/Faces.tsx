import { useSyncExternalStore } from 'react';
import { placeOf } from '@nimble-bell/core/room';
import { Picture } from '../../live/Playback';
import { useInside, useMe, useNameOf, useRoom, type Inside } from '../../live/useRoom';
import { useWanted } from '../../live/Wanted';
import stage from '../../frame/stage.module.css';
import classes from './picture.module.css';

/** Whose camera is on where one is. */
const select = ({ room, info }: Inside) => {
  const place = placeOf(room, info.me.member);
  return Object.keys(room.desk.camera)
    .filter((m) => m !== info.me.member && placeOf(room, m) === place)
    .join(' ');
};

/** Everybody's picture who is where one is, side by side, each as large as that goes. */
export function Faces() {
  const { call } = useRoom();
  const { member: me } = useMe();
  const nameOf = useNameOf();
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  useWanted(useInside(select).split(' '));
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
