import { useMediaQuery } from '@mantine/hooks';
import { placeOf } from '@nimble-bell/core/room';
import { useInside, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import { chooseDevices, ownDevices } from '../../live/ownDevices';
import { SmallButton } from '../../../ui/SmallButton';
import AllFaces from './AllFaces';
import { OnePicture } from './OnePicture';
import classes from './picture.module.css';

interface Props {
  screens: { member: string; track: MediaStreamTrack }[];
}

const select = ({ room, info: { me } }: Inside) => {
  const place = placeOf(room, me.member);
  return {
    two: room.stage.two[place] ?? false,
    faces: Object.keys(room.desk.camera).some((m) => placeOf(room, m) === place),
  };
};

/** What is presented, one or two side by side, and beside it the faces of where one is, for whom wants them. */
export default function Screens({ screens }: Props) {
  const { send } = useRoom();
  const { two, ...has } = useInside(select);
  // On a phone what is presented needs all the room there is.
  const faces = !useMediaQuery('(max-width: 700px)') && has.faces;
  const teaching = useTeaching();
  const wanted = ownDevices.useOf((own) => own.facesBeside);
  const beside = faces && wanted;
  return (
    <div className={classes.presented} data-beside={beside}>
      <div className={classes.screens} data-two={screens.length > 1}>
        {screens.map(({ member, track }, i) => (
          <OnePicture key={member} member={member} track={track} of="screen">
            {i === screens.length - 1 && (
              <>
                {faces && (
                  <SmallButton aria-pressed={wanted} onClick={() => chooseDevices({ facesBeside: !wanted })}>
                    {wanted ? 'Without the faces' : 'Faces beside it'}
                  </SmallButton>
                )}
                {teaching && (
                  <SmallButton
                    aria-pressed={two}
                    onClick={() => void send({ type: 'letTwoPresent', on: !two })}
                  >
                    {two ? 'One at a time again' : 'Let a second present beside it'}
                  </SmallButton>
                )}
              </>
            )}
          </OnePicture>
        ))}
      </div>
      {beside && (
        <div className={classes.besideIt}>
          <AllFaces />
        </div>
      )}
    </div>
  );
}
