import { Group, UnstyledButton } from '@mantine/core';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { lengthWords } from './words';
import classes from './watch.module.css';

interface ChaptersProps {
  of: RecordingDetail['chapters'];
  position: number;
  goTo: (ms: number) => void;
}

/** The chapters, the one that is on marked. */
export function Chapters({ of, position, goTo }: ChaptersProps) {
  const on = of.findLastIndex((c) => c.position <= position + 500);
  return (
    <Group mt="sm" gap="xs" role="group" aria-label="Chapters">
      {of.map((c, i) => (
        <UnstyledButton
          key={c.position + c.title}
          className={classes.chapter}
          aria-current={i === on || undefined}
          onClick={() => goTo(c.position)}
        >
          <time>{lengthWords(c.position)}</time> {c.title}
        </UnstyledButton>
      ))}
    </Group>
  );
}
