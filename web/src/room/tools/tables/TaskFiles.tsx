import { Anchor } from '@mantine/core';
import type { MaterialInfo } from '@nimble-bell/core/api';
import type { Laid } from '@nimble-bell/core/room';
import { useAsked } from '../../../app/queries';
import { useInfo } from '../../live/useRoom';
import classes from './tables.module.css';

/** The files for what is to be done, each to open apart; by its name alone where one has it no more. */
export default function TaskFiles({ files }: Pick<Laid, 'files'>) {
  const { course } = useInfo();
  const { data = [] } = useAsked<MaterialInfo[]>(`/courses/${course.id}/materials`);
  return (
    <ul className={classes.files} aria-label="Files for it">
      {files.map(({ material, name }) => {
        const url = data.find((m) => m.id === material)?.url;
        return (
          <li key={material}>
            {url ? (
              <Anchor href={url} target="_blank" rel="noreferrer">
                {name}
              </Anchor>
            ) : (
              name
            )}
          </li>
        );
      })}
    </ul>
  );
}
