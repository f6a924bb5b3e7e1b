import { Anchor, Button, Group, Text } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import type { MyCourse } from '@nimble-bell/core/api';
import { zoneWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';
import { Link, useParams } from 'react-router';
import { deviceZone } from '../app/reader';

// The list of the world's time zones is heavy, and seldom asked for.
const AboutMeForm = lazy(() => import('./AboutMeForm'));

/** How one is called, and where one is: one's own to say. */
export function AboutMe({ mine }: { mine: MyCourse }) {
  const ask = useAsk();
  const { code } = useParams();
  const { me } = mine;
  const [changing, setChanging] = useState(false);
  const here = deviceZone();
  const move = useChange(
    () => ask('/my-course/me', 'PUT', { zone: here }),
    () => 'Kept.',
  );
  return (
    <Panel title="About you">
      {changing ? (
        <Suspense fallback={<Text size="sm">Looking up time zones</Text>}>
          <AboutMeForm me={me} close={() => setChanging(false)} />
        </Suspense>
      ) : (
        <Group justify="space-between">
          <Text>
            In class you are called {me.name}
            {me.pronouns && ` (${me.pronouns})`}. Times are {zoneWords(me.zone)} time.
          </Text>
          <Button variant="default" size="compact-sm" onClick={() => setChanging(true)}>
            Change
          </Button>
        </Group>
      )}
      {here !== me.zone && !changing && (
        <Text size="sm" mt="xs">
          This device is on {zoneWords(here)} time.{' '}
          <Anchor component="button" type="button" size="sm" onClick={() => move.mutate(undefined)}>
            Use it
          </Anchor>
        </Text>
      )}
      <Take code={code} me={me} />
    </Panel>
  );
}

/** What the college keeps of one, as a file. */
function Take({ code, me }: { code: string | undefined; me: MyCourse['me'] }) {
  const download = async () => {
    const answer = await fetch('/api/my-course/data', { headers: { authorization: `Link ${code}` } });
    const link = document.createElement('a');
    link.href = URL.createObjectURL(await answer.blob());
    link.download = `${me.name}.zip`;
    link.click();
  };
  return (
    <Text size="sm" mt="sm">
      <Anchor component={Link} to={`/in/${code}/letters`} size="sm">
        Which letters you get
      </Anchor>
      {' · '}
      <Anchor component={Link} to={`/in/${code}/ways`} size="sm">
        Days, hours and keys
      </Anchor>
      {' · '}
      <Anchor component="button" type="button" size="sm" onClick={() => void download()}>
        Download what the college keeps of you
      </Anchor>
    </Text>
  );
}
