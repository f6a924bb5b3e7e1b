import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { readCaptions, type Cue } from '@nimble-bell/core/captions';
import { cuesTold, type RecordingPlan } from '@nimble-bell/core/recording';
import type { RecordingRow } from './store';

/** BCP 47, as far as it is a file's name here. */
export const LANGUAGE = /^[a-z]{2,3}(-[a-z0-9]{2,8})*$/i;

/** The captions of a recording lie beside what is watched, each under its language. */
export const captionsFile = (folder: string, recording: string, language: string): string =>
  path.join(folder, `${recording}.${language}.vtt`);

/** The languages that a recording is shown with captions in. */
export const shownLanguages = async (
  folder: string,
  { id, plan }: { id: string; plan: RecordingPlan | null },
): Promise<string[]> => (plan?.leavesOut?.includes('captions') ? [] : captionLanguages(folder, id));

/** The languages that a recording has captions in. */
export async function captionLanguages(folder: string, recording: string): Promise<string[]> {
  const names = await readdir(folder).catch(() => [] as string[]);
  return names
    .filter((name) => name.startsWith(`${recording}.`) && name.endsWith('.vtt'))
    .map((name) => name.slice(recording.length + 1, -'.vtt'.length))
    .filter((language) => LANGUAGE.test(language))
    .sort();
}

/** The captions in a language, of what is told and heard of a recording. */
export async function captionsTold(
  folder: string,
  { id, cut, whole }: Pick<RecordingRow, 'id' | 'cut' | 'whole'>,
  language: string,
): Promise<Cue[]> {
  const cues = readCaptions(await readFile(captionsFile(folder, id, language), 'utf8'));
  return cut ? cuesTold(cues, cut.marks, whole.lengthMs) : cues;
}
