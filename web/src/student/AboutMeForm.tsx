import { Button, Group, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { MyCourse } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { ZoneSelect } from '../ui/ZoneSelect';
import { deviceZone } from '../app/reader';

/** Another name to be called by, another time zone. */
export default function AboutMeForm({ me, close }: { me: MyCourse['me']; close: () => void }) {
  const ask = useAsk();
  const [name, setName] = useState(me.preferredName ?? '');
  const [pronouns, setPronouns] = useState(me.pronouns ?? '');
  const [zone, setZone] = useState(me.zone);
  const said = { preferredName: name.trim() || null, pronouns: pronouns.trim() || null };
  const here = deviceZone();
  const zones = useMemo(
    () => [...new Set([me.zone, here, ...Intl.supportedValuesOf('timeZone')])],
    [me.zone, here],
  );
  const save = useChange(
    () => ask('/my-course/me', 'PUT', { zone, ...said }),
    () => 'Kept.',
  );
  const changed =
    zone !== me.zone || said.preferredName !== me.preferredName || said.pronouns !== me.pronouns;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate(undefined, { onSuccess: close });
      }}
    >
      <Group align="flex-end">
        <TextInput
          label="What you are called in class"
          placeholder={me.name}
          maxLength={120}
          value={name}
          autoFocus
          onChange={(e) => setName(e.currentTarget.value)}
          style={{ flex: '1 1 200px' }}
        />
        <TextInput
          label="Pronouns, if you wish"
          maxLength={30}
          value={pronouns}
          onChange={(e) => setPronouns(e.currentTarget.value)}
          style={{ flex: '1 1 140px' }}
        />
        <ZoneSelect
          label="Your time zone"
          zones={zones}
          value={zone}
          onChange={(z) => z && setZone(z)}
          style={{ flex: '1 1 200px' }}
        />
        <Button type="submit" variant="default" disabled={!changed} loading={save.isPending}>
          Keep it
        </Button>
        <Button variant="subtle" onClick={close}>
          Leave it
        </Button>
      </Group>
    </form>
  );
}
