import { FileButton, Text } from '@mantine/core';
import { useId } from 'react';
import type { MaterialInfo } from '@nimble-bell/core/api';
import { MOST_FILES, type Laid } from '@nimble-bell/core/room';
import { useAsked } from '../../../app/queries';
import { say } from '../../../app/notices';
import { OnItsWay } from '../../../ui/OnItsWay';
import { SmallButton } from '../../../ui/SmallButton';
import { useInfo } from '../../live/useRoom';
import { useSessionFile } from '../useSessionFile';
import classes from './tables.module.css';

interface Props {
  files: Laid['files'];
  set: (files: Laid['files']) => void;
}

/** Files of the class for what is to be done at the tables: those that it has, or one that it is given now. */
export function ChooseFiles({ files, set }: Props) {
  const { course, session } = useInfo();
  const label = useId();
  const list = useAsked<MaterialInfo[]>(`/courses/${course.id}/materials`);
  const { share, sendUp } = useSessionFile('class');
  const given = (list.data ?? []).filter(
    (m) => !m.forTeachers && (m.sessionId === null || m.sessionId === session.id),
  );
  const press = (id: string, name: string) =>
    set(
      files.some((f) => f.material === id)
        ? files.filter((f) => f.material !== id)
        : [...files, { material: id, name }],
    );
  const add = async (file: File | null) => {
    if (!file) return;
    try {
      const id = await sendUp(file);
      const { data } = await list.refetch();
      const sent = data?.find((m) => m.id === id);
      if (sent) set([...files, { material: sent.id, name: sent.name }]);
    } catch (error) {
      say((error as Error).message, 'fault');
    }
  };
  return (
    <div role="group" aria-labelledby={label}>
      <Text id={label} size="sm" fw={500}>
        Files for it
      </Text>
      <div className={classes.choose}>
        {given.map(({ id, name }) => {
          const chosen = files.some((f) => f.material === id);
          return (
            <SmallButton
              key={id}
              aria-pressed={chosen}
              apart={chosen}
              disabled={!chosen && files.length >= MOST_FILES}
              onClick={() => press(id, name)}
            >
              {name}
            </SmallButton>
          );
        })}
        {files.length < MOST_FILES && (
          <FileButton onChange={(file) => void add(file)}>
            {(button) => <SmallButton {...button}>From this machine …</SmallButton>}
          </FileButton>
        )}
      </div>
      <OnItsWay share={share} />
    </div>
  );
}
