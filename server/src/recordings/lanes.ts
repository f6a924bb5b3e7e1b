import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import type { Lane } from '../jobs/worker';
import type { MediaRelay } from '../media/relay';
import { tellAbsent } from '../watching/absent';
import { indexWords } from '../watching/words';
import { makeCut } from './cuts/make';
import { makeExport } from './exports/make';
import { finishRecording } from './finish';
import { keepUp } from './pieces/keepUp';
import { makeListening } from './listening/sound';
import { prepareRecording } from './prepare';

/** One kind of work on recordings: `of` says what of in a job's payload. */
const lane = (
  kind: string,
  of: string,
  width: number,
  work: (id: string, db: PoolConnection) => Promise<unknown>,
): Lane => ({
  name: kind,
  where: `kind = '${kind}'`,
  batch: 1,
  width,
  work: async (jobs, db) => {
    await work(String(jobs[0]!.payload[of]), db);
    return jobs;
  },
});

/** What is done with recordings: who waits for it comes first, two classes at a time. */
export const recordingLanes = (ctx: Context, relay: MediaRelay): Lane[] => [
  lane('prepare', 'recording', 2, async (recording, db) => {
    await prepareRecording(ctx, db, relay, recording);
    await indexWords(ctx, recording);
    await tellAbsent(ctx, recording);
  }),
  lane('piece', 'part', 1, (part, db) => keepUp(ctx, db, part)),
  lane('finish', 'recording', 1, (recording, db) => finishRecording(ctx, db, recording)),
  lane('cut', 'recording', 1, (recording, db) => makeCut(ctx, db, recording)),
  lane('export', 'export', 1, (id) => makeExport(ctx, id)),
  lane('listen', 'recording', 1, (recording) => makeListening(ctx, recording)),
];
