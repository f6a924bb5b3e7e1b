import { startTransition, useEffect, useState } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { readCaptions, type Cue } from '@nimble-bell/core/captions';

const NONE: Cue[] = [];

async function cuesAt(path: string): Promise<Cue[]> {
  const answer = await fetch(path);
  return answer.ok ? readCaptions(await answer.text()) : NONE;
}

/** What was said, by these captions; nothing where there are none, or they cannot be had. */
export function useCues(captions: RecordingDetail['captions']): Cue[] {
  const [cues, setCues] = useState(NONE);
  const paths = captions.map((c) => c.path).join('\n');
  useEffect(() => {
    let wanted = true;
    const all = paths ? paths.split('\n') : [];
    void Promise.all(all.map((path) => cuesAt(path).catch(() => NONE))).then((found) => {
      // In slices: the page stands already, and much of it may be drawn with this.
      if (wanted) startTransition(() => setCues(all.length ? found.flat() : NONE));
    });
    return () => {
      wanted = false;
    };
  }, [paths]);
  return cues;
}
