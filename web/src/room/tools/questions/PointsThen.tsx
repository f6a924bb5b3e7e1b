import { useMemo } from 'react';
import { HEIGHT, WIDTH } from '@nimble-bell/core/board';
import type { OnPicture, Picture } from '@nimble-bell/core/questions';
import { CLASS, onBoard } from '@nimble-bell/core/room';
import type { ReplayProps } from '../replay';
import { Surface } from '../board/Surface';
import { useReplayPages } from '../slides/useReplayPages';
import { Framed, PageFramed } from './PointPicture';

interface Props extends Pick<ReplayProps, 'room' | 'nameOf' | 'pages'> {
  picture: Picture;
  points: readonly OnPicture[];
}

/** The places that a class was shown on a picture, as they were: on the page, or on the side of the board. */
export default function PointsThen({ picture, ...props }: Props) {
  return picture.of === 'board' ? (
    <OnSideThen side={picture.side} {...props} />
  ) : (
    <OnPageThen picture={picture} {...props} />
  );
}

function OnSideThen({ room, nameOf, side, points }: Omit<Props, 'picture'> & { side: number }) {
  const shown = useMemo(() => onBoard(room.board, CLASS, side), [room.board, side]);
  return (
    <Framed ratio={HEIGHT / WIDTH} points={points} own={null}>
      <Surface on={shown} nameOf={nameOf} />
    </Framed>
  );
}

function OnPageThen(props: Omit<Props, 'picture'> & { picture: Extract<Picture, { of: 'page' }> }) {
  const pages = useReplayPages(props.pages);
  return <PageFramed pages={pages} picture={props.picture} points={props.points} own={null} />;
}
