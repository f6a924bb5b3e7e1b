import { Stack, Switch, Text } from '@mantine/core';
import { teaches } from '@nimble-bell/core/roster';
import { nameFrom, seated, useInside, useRoom, type Inside } from '../../live/useRoom';
import classes from './captions.module.css';

const select = ({ room, info }: Inside) =>
  seated({ room, info })
    .filter((p) => room.presence.people[p.member]?.present)
    .map((p) => ({
      member: p.member,
      name: p.member === info.me.member ? 'I myself' : nameFrom({ room, info }, p.member),
      first: p.member === info.me.member ? 0 : teaches(p.role) ? 1 : 2,
      writes: room.captions.writers.includes(p.member),
    }))
    .sort((a, b) => Number(b.writes) - Number(a.writes) || a.first - b.first);

const selectProgram = ({ room, info }: Inside) => ({
  about: info.captioner ?? null,
  listens: room.captions.listens,
  live: room.bell.phase === 'live',
});

/** A program can listen, where the college has one; what it is worth is said. */
function Program() {
  const { send } = useRoom();
  const { about, listens, live } = useInside(selectProgram);
  if (!about) return null;
  return (
    <Switch
      label="A program, by listening"
      description={live ? about : `${about} It listens once you have rung in.`}
      checked={listens}
      disabled={!live}
      onChange={(e) => void send({ type: 'letListen', on: e.currentTarget.checked })}
    />
  );
}

/** Who writes down what is said, one or several in turn. */
export default function Captioners() {
  const { send } = useRoom();
  const people = useInside(select);
  return (
    <Stack gap="xs">
      <Text size="sm" fw={650}>
        Who writes captions
      </Text>
      <Text size="sm" c="dimmed">
        They write what is said; everybody reads it at the stage, and it stays with the recording.
      </Text>
      <Program />
      <div className={classes.people}>
        {people.map(({ member, name, writes }, i) => (
          <Switch
            key={member}
            label={name}
            checked={writes}
            data-autofocus={i === 0 || undefined}
            onChange={(e) => void send({ type: 'setCaptioner', member, on: e.currentTarget.checked })}
          />
        ))}
      </div>
    </Stack>
  );
}
