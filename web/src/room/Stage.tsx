import { SegmentedControl } from '@mantine/core';
import { useState, useSyncExternalStore } from 'react';
import { teaches } from '@nimble-bell/core/limits';
import { Board } from './Board';
import { Notice } from './Notice';
import { Picture } from './Playback';
import { useRoom } from './useRoom';
import classes from './room.module.css';

/** What the room looks at: the presented screen, or whoever has the floor, or the teacher; or the board. */
export function Stage() {
  const [shows, setShows] = useState('picture');
  return (
    <section className={classes.stage} aria-label="Stage">
      <SegmentedControl
        className={classes.stageSwitch!}
        size="xs"
        aria-label="What the stage shows"
        value={shows}
        onChange={setShows}
        data={[
          { value: 'picture', label: 'Picture' },
          { value: 'board', label: 'Board' },
        ]}
      />
      {shows === 'board' ? <Board /> : <MainPicture />}
      <Notice />
    </section>
  );
}

function MainPicture() {
  const { state, call, me, nameOf, info } = useRoom();
  const tracks = useSyncExternalStore(call.subscribe, call.tracks);
  const trackOf = (member: string, kind: 'camera' | 'screen') =>
    tracks.find((t) => t.member === member && t.kind === kind)?.track ?? null;
  const withCamera = (member: string | null | undefined) =>
    member && state.occupants[member]?.camera ? trackOf(member, 'camera') : null;
  const screen = state.presenting ? trackOf(state.presenting, 'screen') : null;
  const teacher = info.people.find((p) => teaches(p.role) && state.occupants[p.member]?.camera)?.member;
  const who = screen ? state.presenting! : withCamera(state.floor) ? state.floor! : teacher;
  const track = screen ?? withCamera(who);
  if (!track || !who)
    return (
      <div className={classes.stageEmpty}>
        <p>{emptyWords(state.phase, state.presenting ? nameOf(state.presenting) : null)}</p>
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
