import { lazy, Suspense, useSyncExternalStore } from 'react';
import { CLASS, placeOf, presentersAt, type RoomState } from '@nimble-bell/core/room';
import { teaches, type Role } from '@nimble-bell/core/roster';
import { useInside, useNameOf, useRoom, type Inside } from '../../live/useRoom';
import { useWanted } from '../../live/Wanted';
import stage from '../../frame/stage.module.css';
import { Faces } from './Faces';
import { OnePicture } from './OnePicture';

// Once somebody presents.
const Screens = lazy(() => import('./Screens'));

/** Whom a teacher has made large for all, where their camera is on. */
const featuredAt = ({ stage, desk }: RoomState, place: string): string | null => {
  const member = stage.featured[place];
  return member && desk.camera[member] ? member : null;
};

/** Who taught, for those whom they have left alone while the class is on: they are away, and come back. */
function awayIn({ bell, door, presence }: RoomState, role: Role): string | null {
  if (teaches(role) || bell.phase !== 'live' || door.unattendedSince === null) return null;
  const taught = Object.values(presence.people).filter((p) => teaches(p.role));
  return (taught.find((p) => p.role === 'teacher') ?? taught[0])?.member ?? null;
}

/** Whose picture the class looks at: what is presented, whom a teacher made large, who has the floor, the teacher. */
function select({ room, info }: Inside) {
  const { camera } = room.desk;
  const { holder } = room.floor;
  const place = placeOf(room, info.me.member);
  return {
    atTable: place !== CLASS,
    phase: room.bell.phase,
    away: awayIn(room, info.me.role),
    presenters: presentersAt(room, place).join(' '),
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
  const nameOf = useNameOf();
  const { atTable, phase, away, featured, speaker, teacher, ...of } = useInside(select);
  const presenters = of.presenters.split(' ').filter(Boolean);
  const large = featured ?? speaker ?? teacher;
  useWanted([large]);
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  const trackOf = (member: string | null, kind: 'camera' | 'screen') =>
    tracks.find((t) => t.member === member && t.kind === kind)?.track ?? null;
  const screens = presenters.flatMap((member) => {
    const track = trackOf(member, 'screen');
    return track ? [{ member, track }] : [];
  });
  if (screens.length)
    return (
      <Suspense>
        <Screens screens={screens} />
      </Suspense>
    );
  if (atTable && !featured) return <Faces />;
  const track = trackOf(large, 'camera');
  if (!track || !large)
    return (
      <div className={stage.stageEmpty}>
        <p>{away ? awayWords(nameOf(away)) : emptyWords(phase, presenters.map(nameOf))}</p>
      </div>
    );
  return <OnePicture member={large} track={track} of="camera" />;
}

const awayWords = (name: string) =>
  `${name} is away for a moment. Stay here: the class goes on when they are back.`;

function emptyWords(phase: string, presenters: string[]): string {
  if (presenters.length)
    return `${presenters.join(' and ')} ${presenters.length > 1 ? 'are' : 'is'} about to present.`;
  return phase === 'waiting'
    ? 'Class has not begun. Ring in when you are ready.'
    : 'No camera is on and nothing is presented.';
}
