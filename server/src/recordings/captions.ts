import { readdir } from 'node:fs/promises';
import path from 'node:path';

/** BCP 47, as far as it is a file's name here. */
export const LANGUAGE = /^[a-z]{2,3}(-[a-z0-9]{2,8})*$/i;

/** The captions of a prepared recording lie beside its file, each under its language. */
export const captionsFile = (file: string, language: string): string =>
  `${file.replace(/\.webm$/, '')}.${language}.vtt`;

/** The languages that a prepared recording has captions in. */
export async function captionLanguages(folder: string, file: string): Promise<string[]> {
  const { name: stem } = path.parse(file);
  const names = await readdir(folder).catch(() => [] as string[]);
  return names
    .filter((name) => name.startsWith(`${stem}.`) && name.endsWith('.vtt'))
    .map((name) => name.slice(stem.length + 1, -'.vtt'.length))
    .filter((language) => LANGUAGE.test(language))
    .sort();
}
