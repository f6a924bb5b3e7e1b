import type { ReactNode } from 'react';
import { useMe, useNameOf } from '../../live/useRoom';
import { Picture } from '../../live/Playback';
import { chooseDevices, ownDevices } from '../../live/ownDevices';
import { SmallButton } from '../../../ui/SmallButton';
import classes from './picture.module.css';

interface Props {
  member: string;
  track: MediaStreamTrack | null;
  /** What they show. */
  of: 'camera' | 'screen';
  /** What is done with it, besides. */
  children?: ReactNode;
}

/** Somebody's picture, with whose it is. One's own camera can be hidden from oneself; the others see it as before. */
export function OnePicture({ member, track, of, children }: Props) {
  const { member: me } = useMe();
  const nameOf = useNameOf();
  const hidesSelf = ownDevices.useOf((own) => own.hidesSelf);
  const own = member === me;
  const mine = own && of === 'camera';
  const hidden = mine && hidesSelf;
  return (
    <figure className={classes.figure}>
      {track && !hidden && (
        <Picture track={track} className={classes.mainPicture} label={`${nameOf(member)}, ${of}`} />
      )}
      {hidden && <p className={classes.hidden}>The others see you. You hide your picture from yourself.</p>}
      <figcaption>
        {own ? 'You' : nameOf(member)}
        {of === 'screen' ? (own ? ' present' : ' presents') : ''}
      </figcaption>
      <div className={classes.acts}>
        {children}
        {mine && (
          <SmallButton aria-pressed={hidden} onClick={() => chooseDevices({ hidesSelf: !hidesSelf })}>
            {hidden ? 'Show me to myself' : 'Hide me from myself'}
          </SmallButton>
        )}
      </div>
    </figure>
  );
}
