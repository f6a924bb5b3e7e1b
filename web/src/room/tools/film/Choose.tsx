import { Button, FileButton, Group, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { MaterialInfo } from '@nimble-bell/core/api';
import { useAsked } from '../../../app/queries';
import { Fault } from '../../../ui/Fault';
import { useInfo, useRoom } from '../../live/useRoom';
import { useSessionFile } from '../useSessionFile';
import { addressOf } from '../../../ui/address';
import { OnItsWay } from '../../../ui/OnItsWay';
import classes from './film.module.css';

const TAKEN = 'video/mp4,video/webm,audio/mpeg,audio/ogg';
const isFilm = (m: MaterialInfo) => m.kind === 'file' && /^(video|audio)\//.test(m.type ?? '');

/** The films among the files, and what is done with them. */
function useFilms(close: () => void) {
  const { send } = useRoom();
  const { course, session } = useInfo();
  const list = useAsked<MaterialInfo[]>(`/courses/${course.id}/materials`);
  const { share, sendUp } = useSessionFile();
  const [fault, setFault] = useState('');
  const show = async (material: string, name: string) => {
    if (await send({ type: 'showFilm', material, name })) close();
  };
  const add = async (file: File | null) => {
    if (!file) return;
    setFault('');
    try {
      const id = await sendUp(file);
      void list.refetch();
      await show(id, file.name);
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  const films = list.data?.filter((m) => isFilm(m) && (m.sessionId === null || m.sessionId === session.id));
  return { error: list.error, films, share, fault, show, add };
}

/** What the class watches together: a film among the files, one that is added here, or an address to be pressed. */
export default function Choose({ close }: { close: () => void }) {
  const { error, films, share, fault, show, add } = useFilms(close);
  return (
    <Stack gap="sm">
      <Text size="sm" fw={650}>
        Watch together
      </Text>
      {error && <Fault error={error} />}
      {films?.length === 0 && (
        <Text size="sm" c="dimmed">
          No film or sound is among the files of this session or course yet.
        </Text>
      )}
      <ul className={classes.films} aria-label="Films and sounds">
        {films?.map((m, i) => (
          <li key={m.id}>
            <span>{m.name}</span>
            <Button
              size="compact-sm"
              variant="light"
              aria-label={`Watch ${m.name}`}
              data-autofocus={i === 0 || undefined}
              onClick={() => void show(m.id, m.name)}
            >
              Watch
            </Button>
          </li>
        ))}
      </ul>
      <FileButton onChange={(file) => void add(file)} accept={TAKEN}>
        {(button) => (
          <Button {...button} size="compact-md" variant="default" loading={share !== null}>
            Add a film or a sound
          </Button>
        )}
      </FileButton>
      <OnItsWay share={share} />
      {fault && (
        <Text role="alert" c="var(--clay)">
          {fault}
        </Text>
      )}
      <OpenAddress close={close} />
    </Stack>
  );
}

/** An address that everybody is given to press. */
function OpenAddress({ close }: { close: () => void }) {
  const { send } = useRoom();
  const [url, setUrl] = useState('');
  const [title, setTitle] = useState('');
  const address = addressOf(url);
  const open = async () => {
    if (
      address &&
      (await send({ type: 'openCard', url: address, title: title.trim() || new URL(address).host }))
    )
      close();
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void open();
      }}
    >
      <Text size="sm" fw={650} mb={4}>
        An address for all
      </Text>
      <Group gap="xs" align="flex-start" grow>
        <TextInput
          size="xs"
          label="Address"
          placeholder="https://"
          inputMode="url"
          value={url}
          onChange={(e) => setUrl(e.currentTarget.value)}
          error={url.trim() && !address ? 'This is no address of the web.' : undefined}
        />
        <TextInput
          size="xs"
          label="What it is"
          maxLength={120}
          value={title}
          onChange={(e) => setTitle(e.currentTarget.value)}
        />
      </Group>
      <Button type="submit" size="compact-md" variant="default" mt="xs" disabled={!address}>
        Give it to the class
      </Button>
    </form>
  );
}
