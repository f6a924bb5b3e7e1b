import { Switch } from '@mantine/core';
import { arrival } from '../door/arrival';
import { useInside, useRoom, type Inside } from '../live/useRoom';

const select = ({ room, info }: Inside) => Boolean(room.desk.listens[info.me.member]);

/** That one only listens, said or taken back in the middle of class. */
export function OnlyListen() {
  const { send } = useRoom();
  const listens = useInside(select);
  return (
    <Switch
      size="xs"
      mt={10}
      label="I only listen: nobody asks me to speak"
      checked={listens}
      onChange={(e) => {
        const on = e.currentTarget.checked;
        arrival.set({ ...arrival.get(), listens: on });
        void send({ type: 'onlyListen', on });
      }}
    />
  );
}
