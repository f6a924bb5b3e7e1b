import { Text } from '@mantine/core';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { clockWords, namesWords } from '@nimble-bell/core/calendar';
import { Panel } from '../ui/Panel';
import { lengthWords } from './words';
import classes from './watch.module.css';

/** What was said at the tables of a class: for who sat there, and for those who teach. */
export default function TableSounds({ of }: { of: RecordingDetail }) {
  const { tables, zone } = of;
  return (
    <Panel
      title="At the tables"
      about={
        of.teaching
          ? 'What was said at each, by itself. Students hear the tables at which they sat.'
          : 'What was said at the tables at which you sat.'
      }
    >
      {tables === null ? (
        <Text role="status">
          It is being prepared, after what was said in the class. Come back in a while.
        </Text>
      ) : (
        <ul className={classes.tables}>
          {tables.map(({ place, name, at, lengthMs, members, path }) => (
            <li key={place}>
              <span>
                <strong>{name}</strong>
                <span className="figures">
                  {clockWords(at, zone)}, {lengthWords(lengthMs)}
                </span>
                {members.length > 0 && <span>{namesWords(members)}</span>}
              </span>
              <audio
                controls
                preload="none"
                src={path}
                aria-label={`${name}, ${clockWords(at, zone)}`}
                // What may not be taken along is not offered for it either.
                controlsList={of.mayDownload ? undefined : 'nodownload'}
              />
            </li>
          ))}
        </ul>
      )}
    </Panel>
  );
}
