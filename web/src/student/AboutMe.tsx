import { Anchor, Button, Group, Text, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { MyCourse } from '@nimble-bell/core/api';
import { zoneWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';
import { ZoneSelect } from '../ui/ZoneSelect';
import { Link, useParams } from 'react-router';

/** How one is called, and where one is: one's own to say. */
export function AboutMe({ mine }: { mine: MyCourse }) {
  const ask = useAsk();
  const { code } = useParams();
  const { me } = mine;
  const [name, setName] = useState(me.preferredName ?? '');
  const [zone, setZone] = useState(me.zone);
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const zones = useMemo(
    () => [...new Set([me.zone, here, ...Intl.supportedValuesOf('timeZone')])],
    [me.zone, here],
  );
  const save = useChange(
    () => ask('/my-course/me', 'PUT', { zone, preferredName: name.trim() || null }),
    () => 'Kept.',
  );
  const changed = zone !== me.zone || (name.trim() || null) !== me.preferredName;

  return (
    <Panel title="About you">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate(undefined);
        }}
      >
        <Fields
          me={me}
          name={name}
          setName={setName}
          zones={zones}
          zone={zone}
          setZone={setZone}
          changed={changed}
          busy={save.isPending}
        />
      </form>
      {here !== me.zone && zone === me.zone && (
        <Text size="sm" mt="xs">
          This device is on {zoneWords(here)} time.{' '}
          <Anchor component="button" type="button" size="sm" onClick={() => setZone(here)}>
            Use it
          </Anchor>
        </Text>
      )}
      <Take code={code} me={me} />
    </Panel>
  );
}

interface FieldsProps {
  me: MyCourse['me'];
  name: string;
  setName: (value: string) => void;
  zones: string[];
  zone: string;
  setZone: (value: string) => void;
  changed: boolean;
  busy: boolean;
}

function Fields(props: FieldsProps) {
  const { me, name, setName, zones, zone, setZone, changed, busy } = props;
  return (
    <Group align="flex-end">
      <TextInput
        label="What you are called in class"
        placeholder={me.name}
        maxLength={120}
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
        style={{ flex: '1 1 200px' }}
      />
      <ZoneSelect
        label="Your time zone"
        zones={zones}
        value={zone}
        onChange={(z) => z && setZone(z)}
        style={{ flex: '1 1 200px' }}
      />
      <Button type="submit" variant="default" disabled={!changed} loading={busy}>
        Keep it
      </Button>
    </Group>
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
      <Anchor component="button" type="button" size="sm" onClick={() => void download()}>
        Download what the college keeps of you
      </Anchor>
    </Text>
  );
}
