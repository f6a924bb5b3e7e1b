import { useSyncExternalStore } from 'react';
import { CLASS, placeOf, type RoomState } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { Picture } from '../../live/Playback';
import { useInside, useMe, useNameOf, useRoom, type Inside } from '../../live/useRoom';
import { useWanted } from '../../live/Wanted';
import stage from '../../frame/stage.module.css';
import { Faces } from './Faces';
import classes from './picture.module.css';

/** Whom a teacher has made large for all, where their camera is on. */
const featuredAt = ({ stage, desk }: RoomState, place: string): string | null => {
  const member = stage.featured[place];
  return member && desk.camera[member] ? member : null;
};

/** Whose picture the class looks at: what is presented, whom a teacher made large, who has the floor, the teacher. */
function select({ room, info }: Inside) {
  const { camera } = room.desk;
  const { holder } = room.floor;
  const place = placeOf(room, info.me.member);
  return {
    atTable: place !== CLASS,
    phase: room.bell.phase,
    presenter: room.stage.presenting[place] ?? null,
    featured: featuredAt(room, place),
    speaker: holder && camera[holder] ? holder : null,
    teacher:
      Object.values(room.presence.people).find(
        (p) => p.present && p.place === place && teaches(p.role) && camera[p.member],
      )?.member ?? null,
  };
}

export function MainPicture() {
  const { call } = useRoom();
  const { member: me } = useMe();
  const nameOf = useNameOf();
  const { atTable, phase, presenter, featured, speaker, teacher } = useInside(select);
  const large = featured ?? speaker ?? teacher;
  useWanted([large]);
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  const trackOf = (member: string | null, kind: 'camera' | 'screen') =>
    tracks.find((t) => t.member === member && t.kind === kind)?.track ?? null;
  const screen = trackOf(presenter, 'screen');
  if (atTable && !screen && !featured) return <Faces />;
  const who = screen ? presenter : large;
  const track = screen ?? trackOf(who, 'camera');
  if (!track || !who)
    return (
      <div className={stage.stageEmpty}>
        <p>{emptyWords(phase, presenter && nameOf(presenter))}</p>
      </div>
    );
  return (
    <figure className={classes.figure}>
      <Picture
        track={track}
        className={classes.mainPicture}
        label={`${nameOf(who)}, ${screen ? 'screen' : 'camera'}`}
      />
      <figcaption>
        {who === me ? 'You' : nameOf(who)}
        {screen ? (who === me ? ' present' : ' presents') : ''}
      </figcaption>
    </figure>
  );
}

function emptyWords(phase: string, presenter: string | null): string {
  if (presenter) return `${presenter} is about to present.`;
  return phase === 'waiting'
    ? 'Class has not begun. Ring in when you are ready.'
    : 'No camera is on and nothing is presented.';
}
