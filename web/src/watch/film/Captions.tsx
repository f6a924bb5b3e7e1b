import { useMemo } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useCues } from '../useCues';
import type { Kept } from './useKept';
import classes from './film.module.css';

/** What is said at this moment. */
export function Captions({
  recording: { captions },
  kept,
  position,
}: {
  recording: RecordingDetail;
  kept: Kept;
  position: number;
}) {
  const chosen = useMemo(
    () => captions.filter((c) => c.language === kept.captions),
    [captions, kept.captions],
  );
  const cues = useCues(chosen);
  if (!chosen[0]) return null;
  const said = cues.filter((c) => c.from <= position && position < c.until);
  return (
    <p
      className={classes.captions}
      data-size={kept.size}
      lang={chosen[0].language}
      dir="auto"
      data-testid="captions"
    >
      {said.map((c) => c.text).join('\n')}
    </p>
  );
}
