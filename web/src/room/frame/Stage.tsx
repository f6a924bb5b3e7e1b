import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { STAGE_TOOLS } from '../tools/registry';
import { Notice } from './Notice';
import classes from './stage.module.css';

/** What the room looks at: one of the tools, chosen by its word. */
export function Stage() {
  const [shows, setShows] = useState(STAGE_TOOLS[0]!.id);
  const { Stage: Shown } = STAGE_TOOLS.find((t) => t.id === shows)!;
  return (
    <section className={classes.stage} aria-label="Stage">
      <SegmentedControl
        className={classes.stageSwitch!}
        size="xs"
        aria-label="What the stage shows"
        value={shows}
        onChange={setShows}
        data={STAGE_TOOLS.map(({ id, word }) => ({ value: id, label: word }))}
      />
      <Shown />
      <Notice />
    </section>
  );
}
