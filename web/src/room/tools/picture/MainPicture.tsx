import { useSyncExternalStore } from 'react';
import { CLASS, placeOf } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { Picture } from '../../live/Playback';
import { useInside, useMe, useNameOf, useRoom, type Inside } from '../../live/useRoom';
import { useWanted } from '../../live/Wanted';
import stage from '../../frame/stage.module.css';
import { Faces } from './Faces';
import classes from './picture.module.css';

/** Whose picture the class looks at: what is presented, or whoever has the floor, or the teacher. */
function select({ room, info }: Inside) {
  const { camera } = room.desk;
  const { holder } = room.floor;
  const place = placeOf(room, info.me.member);
  return {
    atTable: place !== CLASS,
    phase: room.bell.phase,
    presenter: room.stage.presenting[place] ?? null,
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
  const { atTable, phase, presenter, speaker, teacher } = useInside(select);
  useWanted([speaker ?? teacher]);
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  const trackOf = (member: string | null, kind: 'camera' | 'screen') =>
    tracks.find((t) => t.member === member && t.kind === kind)?.track ?? null;
  const screen = trackOf(presenter, 'screen');
  if (atTable && !screen) return <Faces />;
  const who = screen ? presenter : (speaker ?? teacher);
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
