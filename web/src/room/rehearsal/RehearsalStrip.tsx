import { Button, Menu, Popover } from '@mantine/core';
import type { Prompt } from '@nimble-bell/core/rehearsal';
import { useAsk } from '../../app/api';
import { useChange } from '../../app/queries';
import { useInfo, useTeaching } from '../live/useRoom';
import strip from '../tools/strip.module.css';
import { TriedList } from './TriedList';
import { useLent } from './useLent';
import { useRehearsal, useThrowAway } from './useRehearsal';
import classes from './rehearsal.module.css';

/** What can be let happen, in words. */
const PROMPT_WORDS: Record<Prompt, string> = {
  hands: 'Hands go up',
  chatter: 'Many write at once',
  signs: 'They give signs',
  unruly: 'Some do what is closed',
  lines: 'Connections are lost',
};

/** Over the stage of a rehearsal: that it is one, what is not tried yet, and what can be let happen. */
export default function RehearsalStrip() {
  const teaching = useTeaching();
  return (
    <div className={`${strip.strip} ${classes.strip}`} data-testid="rehearsal">
      <p>A rehearsal with a made-up class: nothing of it is kept.</p>
      {teaching && <Acts />}
    </div>
  );
}

const NOBODY: readonly string[] = [];

function Acts() {
  const { session } = useInfo();
  const { data } = useRehearsal(session.id);
  const throwAway = useThrowAway(session.id, data);
  useLent(session.id, data?.lent ?? NOBODY);
  const left = data?.tried.filter((t) => !t.done).length;
  return (
    <>
      <Popover position="bottom-end" withArrow trapFocus returnFocus>
        <Popover.Target>
          <Button size="compact-sm" variant="default">
            {left === undefined ? 'What to try' : left ? `${left} not tried yet` : 'All was tried'}
          </Button>
        </Popover.Target>
        <Popover.Dropdown aria-label="What to try">
          {data && <TriedList tried={data.tried} />}
          {Boolean(data?.refused) && <p>What is closed was tried, and refused: {data!.refused} times.</p>}
        </Popover.Dropdown>
      </Popover>
      <Happen session={session.id} />
      <Button
        size="compact-sm"
        variant="default"
        loading={throwAway.isPending}
        onClick={() => throwAway.mutate(undefined)}
      >
        End the rehearsal
      </Button>
    </>
  );
}

function Happen({ session }: { session: string }) {
  const ask = useAsk();
  const prompt = useChange((what: Prompt) => ask(`/sessions/${session}/rehearsal/prompt`, 'POST', { what }));
  return (
    <Menu position="bottom-end" withArrow>
      <Menu.Target>
        <Button size="compact-sm" variant="default">
          Let something happen
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {(Object.keys(PROMPT_WORDS) as Prompt[]).map((what) => (
          <Menu.Item key={what} onClick={() => prompt.mutate(what)}>
            {PROMPT_WORDS[what]}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
