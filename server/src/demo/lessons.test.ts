import { execFile } from 'node:child_process';
import { mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { readCaptions } from '@nimble-bell/core/captions';
import { lessonIn, makeLesson } from './lessons';
import { LESSONS, type Lesson } from './lessonScripts';

let folder = '';
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'lesson-'));
});
afterAll(() => rm(folder, { recursive: true }));

const secondsOf = async (file: string) => {
  const args = ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', file];
  return Number((await promisify(execFile)('ffprobe', args)).stdout);
};

test('a lesson is spoken and drawn: sound and pictures are of one length, and its captions say what is heard when', async () => {
  const lesson = { ...LESSONS[0]!, slides: LESSONS[0]!.slides.slice(0, 2) };
  const made = await makeLesson(lesson, folder);
  expect((await readdir(folder)).sort()).toEqual(['camera.webm', 'screen.webm', 'sound.webm']);
  for (const file of ['camera.webm', 'screen.webm', 'sound.webm'])
    expect(Math.abs((await secondsOf(path.join(folder, file))) * 1000 - made.lengthMs)).toBeLessThan(700);
  const cues = readCaptions(made.captions);
  expect(cues.map((c) => c.text)).toEqual(lesson.slides.flatMap((s) => s.says));
  expect(cues.at(-1)!.until).toBeLessThan(made.lengthMs);
  expect(made.slides.map((s) => s.at > 0)).toEqual([false, true]);
  for (const silence of made.silences)
    expect(cues.some((c) => c.from < silence.until && c.until > silence.from)).toBe(false);
}, 60_000);

test('what was made before is not made again, and is the same; another lesson is another', async () => {
  const [one, other] = LESSONS.map((lesson) => ({
    ...lesson,
    slides: lesson.slides.slice(0, 1).map((s) => ({ ...s, says: s.says.slice(0, 1) })),
  })) as [Lesson, Lesson];
  const kept = path.join(folder, 'kept');
  const at = (name: string) => path.join(folder, name);
  const first = await lessonIn(one, at('first'), kept);
  const [home] = await readdir(kept);
  const made = (await stat(path.join(kept, home!))).mtimeMs;
  expect(await lessonIn(one, at('again'), kept)).toEqual(first);
  expect(first.slides[0]!.slide).toBe(one.slides[0]);
  expect((await stat(path.join(kept, home!))).mtimeMs).toBe(made);
  expect((await readdir(at('again'))).sort()).toEqual(['camera.webm', 'screen.webm', 'sound.webm']);
  await lessonIn(other, at('other'), kept);
  expect(await readdir(kept)).toHaveLength(2);
}, 60_000);

test('the lessons differ from one another, and are short', () => {
  expect(new Set(LESSONS.map((l) => l.voice)).size).toBe(LESSONS.length);
  expect(new Set(LESSONS.flatMap((l) => l.slides.map((s) => s.title))).size).toBe(
    LESSONS.flatMap((l) => l.slides).length,
  );
});
