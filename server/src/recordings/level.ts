import path from 'node:path';
import {
  levelArguments,
  lengthOf,
  measureArguments,
  measuredIn,
  type Measured,
} from '@nimble-bell/core/recording';
import type { Context } from '../context';
import { readyDir, runProgram } from './files';
import { listSounds, type Made, type Part } from './pieces/join';

/** The sound of these parts as one file among what is watched, levelled as a whole; gives what was measured of it. */
export async function levelSound(
  ctx: Context,
  {
    recording,
    parts,
    made,
    file,
  }: {
    recording: string;
    parts: readonly Part[];
    made: Made;
    file: string;
  },
): Promise<Measured> {
  const list = await listSounds(ctx, recording, parts, made, 'whole');
  const patient = { patient: true };
  const { stderr } = await runProgram('ffmpeg', measureArguments(list), patient);
  const measured = measuredIn(stderr, lengthOf(parts));
  await runProgram('ffmpeg', levelArguments(list, measured, path.join(readyDir(ctx), file)), patient);
  return measured;
}
