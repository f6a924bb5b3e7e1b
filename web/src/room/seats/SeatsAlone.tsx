import { Switch } from '@mantine/core';
import { frontOf, placeOf } from '@nimble-bell/core/room';
import { ownStage, shownWhile } from '../frame/ownStage';
import { useInside, type Inside } from '../live/useRoom';

const select = ({ room, info }: Inside) => frontOf(room, placeOf(room, info.me.member));

/** For oneself nothing but the seats, in the place of the stage; whoever teaches puts it before everybody there. */
export default function SeatsAlone() {
  const front = useInside(select);
  const alone = shownWhile(front, ownStage.use()) === 'seats';
  const show = (seats: boolean) => {
    const otherwise = front === 'seats' ? 'picture' : front;
    ownStage.set({ shows: seats ? 'seats' : otherwise, while: front });
  };
  return (
    <Switch
      size="xs"
      label="Nothing but the seats"
      checked={alone}
      onChange={(e) => show(e.currentTarget.checked)}
    />
  );
}
