import { useElementSize } from '@mantine/hooks';
import { useSyncExternalStore } from 'react';
import { placeOf } from '@nimble-bell/core/room';
import { useInside, useMe, useNameOf, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import type { Size } from '../../live/looks';
import { useWanted } from '../../live/Wanted';
import { SmallButton } from '../../../ui/SmallButton';
import stage from '../../frame/stage.module.css';
import { OnePicture } from './OnePicture';
import classes from './picture.module.css';
import { tilesFor } from './tiles';

/** Whose camera is on where one is: those who teach first, then by the class list. */
const select = ({ room, info }: Inside) => {
  const place = placeOf(room, info.me.member);
  const on = new Set(Object.keys(room.desk.camera).filter((m) => placeOf(room, m) === place));
  const listed = info.people.map((p) => p.member).filter((m) => on.has(m));
  return [...listed, ...[...on].filter((m) => !listed.includes(m))].join(' ');
};

/** Everybody's picture who is where one is, side by side: as many as the window holds so that one knows them. */
export default function AllFaces() {
  const { ref, width, height } = useElementSize();
  const on = useInside(select).split(' ').filter(Boolean);
  const { columns, rows, shown, small } = tilesFor(
    on.length,
    width || 640,
    height || 360,
    window.devicePixelRatio,
  );
  const faces = on.slice(0, shown);
  if (!on.length)
    return (
      <div className={stage.stageEmpty}>
        <p>No camera is on here.</p>
      </div>
    );
  return (
    <div
      ref={ref}
      className={classes.faces}
      style={{
        gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
        gridTemplateRows: `repeat(${rows}, minmax(0, 1fr))`,
      }}
    >
      <Shown faces={faces} size={small ? 'small' : 'large'} />
      {on.length > shown && <p className={classes.rest}>{on.length - shown} more cameras are on.</p>}
    </div>
  );
}

const selectFeatured = ({ room, info }: Inside) => room.stage.featured[placeOf(room, info.me.member)] ?? null;

function Shown({ faces, size }: { faces: readonly string[]; size: Size }) {
  const { call, send } = useRoom();
  const { member: me } = useMe();
  const teaching = useTeaching();
  const nameOf = useNameOf();
  const featured = useInside(selectFeatured);
  useWanted(
    faces.filter((m) => m !== me),
    size,
  );
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  return faces.map((member) => {
    const track = tracks.find((t) => t.member === member && t.kind === 'camera')?.track ?? null;
    const large = member === featured;
    return (
      <OnePicture key={member} member={member} track={track} of="camera">
        {teaching && (
          <SmallButton
            aria-pressed={large}
            aria-label={large ? undefined : `${nameOf(member)}, large for all`}
            onClick={() => void send({ type: 'feature', member: large ? null : member })}
          >
            {large ? 'Not large for all any more' : 'Large for all'}
          </SmallButton>
        )}
      </OnePicture>
    );
  });
}
