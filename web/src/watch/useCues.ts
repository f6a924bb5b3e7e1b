import { useEffect, useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { readCaptions, type Cue } from '@nimble-bell/core/captions';

const NONE: Cue[] = [];

/** What was said, by the first of a recording's captions; nothing where there are none, or they cannot be had. */
export function useCues(captions: RecordingDetail['captions']): Cue[] {
  const [cues, setCues] = useState(NONE);
  const path = captions[0]?.path;
  useEffect(() => {
    let wanted = true;
    const look = async () => {
      const answer = path ? await fetch(path) : null;
      const found = answer?.ok ? readCaptions(await answer.text()) : NONE;
      if (wanted) setCues(found);
    };
    look().catch(() => wanted && setCues(NONE));
    return () => {
      wanted = false;
    };
  }, [path]);
  return cues;
}
