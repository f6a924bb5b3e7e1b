import { Button, Checkbox, Menu } from '@mantine/core';
import { memo } from 'react';
import { clockWords } from '@nimble-bell/core/calendar';
import type { Knock, RoomCommand } from '@nimble-bell/core/room';
import classes from './door.module.css';

const CAME = { account: 'college account', visitor: 'visitor' } as const;

/** How somebody comes who is not simply of the class list. */
const wayOf = ({ role, came, way }: Knock): string =>
  [came ? CAME[came] : role === 'guest' ? 'guest' : '', way === 'telephone' ? 'by telephone' : '']
    .filter(Boolean)
    .join(', ');

interface KnockerProps {
  knock: Knock;
  zone: string;
  /** Somebody of the class list who is not here, and may be this person. */
  like: string | null;
  chosen: boolean;
  choose: (member: string, on: boolean) => void;
  send: (command: RoomCommand) => void;
  /** Asks for a word first. */
  turnAway: (knock: Knock) => void;
}

/** One who knocks: who, how, since when, and what can be done. */
export const Knocker = memo(function Knocker({
  knock,
  zone,
  like,
  chosen,
  choose,
  send,
  turnAway,
}: KnockerProps) {
  const { member, name } = knock;
  const way = wayOf(knock);
  return (
    <div className={classes.knock} role="listitem">
      <Checkbox
        size="xs"
        aria-label={`Choose ${name}`}
        checked={chosen}
        onChange={(e) => choose(member, e.currentTarget.checked)}
      />
      <span className={classes.name}>
        <bdi>{name}</bdi>
        {way && `, ${way}`} <time>{clockWords(knock.at, zone)}</time>
        {like && <small>On the class list, and not here: {like}</small>}
      </span>
      <span className={classes.acts}>
        <Button
          size="compact-xs"
          aria-label={`Let in ${name}`}
          onClick={() => send({ type: 'letIn', members: [member] })}
        >
          Let in
        </Button>
        <Menu position="bottom-end" withArrow>
          <Menu.Target>
            <Button size="compact-xs" variant="subtle" aria-label={`Otherwise, ${name}`}>
              Otherwise …
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => send({ type: 'letIn', members: [member], always: true })}>
              Let in, and always
            </Menu.Item>
            <Menu.Item onClick={() => send({ type: 'turnAway', members: [member], word: '' })}>
              Turn away
            </Menu.Item>
            <Menu.Item onClick={() => turnAway(knock)}>Turn away with a word …</Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </span>
    </div>
  );
});
