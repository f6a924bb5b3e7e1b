import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { Router, type Request } from 'express';
import { z } from 'zod';
import type { Watchers } from '@nimble-bell/core/api';
import { CaptionFault, readCaptions, writeVtt, type Cue } from '@nimble-bell/core/captions';
import { cuesMended, isExpired, mayWatch, sourceAt } from '@nimble-bell/core/recording';
import { teaches } from '@nimble-bell/core/roster';
import { tidyProse } from '@nimble-bell/core/text';
import {
  shareWatched,
  sourceStretch,
  stretchesOf,
  watchedAgain,
  watchedByAll,
  watchedTold,
} from '@nimble-bell/core/watching';
import { markOf } from '@nimble-bell/core/roll';
import { asked, principalOf, requireRight } from '../accounts/principal';
import { membersWhere } from '../accounts/store';
import { newId, type Context } from '../context';
import { courseById } from '../courses/store';
import { transaction } from '../db/pool';
import { AppError, parse } from '../errors';
import { captionsFile, LANGUAGE } from '../recordings/captions';
import { readyDir } from '../recordings/files';
import { recordingsWhere, type RecordingRow } from '../recordings/store';
import { watchedBy } from '../recordings/watchable';
import { rollLinesWhere } from '../sessions/store';
import { indexWords } from './words';
import { searched } from './search';
import { keepWatched, watchedOf, watchersOf, wordsAreOld } from './store';

const WatchedInput = z.object({
  /** ms into the recording. */
  position: z.number().min(0).max(1e9),
  /** The stretches that were played since this was last said, each as often as it was. */
  stretches: z.array(z.int().min(0).max(100_000)).max(200),
});
const CaptionsInput = z.object({
  text: z.string().max(4_000_000, 'This file is too long.').transform(tidyProse),
});
const SearchQuery = z.object({ q: z.string().trim().max(200).default('') });

/** What goes with watching: where one is, who watched, captions, and what is looked for over a course. */
export function watchingRoutes(ctx: Context): Router {
  const router = Router();

  router.put('/recordings/:id/watched', async (req, res) => {
    const { row, who: me } = await watchedBy(ctx, req);
    const { position, stretches } = parse(WatchedInput, req.body);
    // Kept by what was recorded: it outlives every cut.
    const of = stretchesOf(row.lengthMs);
    const recorded = stretches.filter((s) => s < of).map((s) => sourceStretch(row.told, s));
    const at = sourceAt(row.told, Math.min(position, row.lengthMs));
    // Where it is not counted, where one is stays one's own.
    const counted = row.counts ? recorded : [];
    await transaction(ctx.db, async (db) => {
      const known = await watchedOf(db, row.id, me.id, true);
      await keepWatched(db, row.id, {
        ...{ member: me.id, position: at, at: ctx.now() },
        stretches: watchedAgain(known?.stretches ?? [], counted, row.whole.lengthMs),
      });
    });
    res.json({});
  });

  /** Who watched, how far, and which parts: for those who teach. */
  router.get('/recordings/:id/watchers', async (req, res) => {
    const { row, who: me } = await watchedBy(ctx, req);
    if (!teaches(me.role)) throw new AppError('forbidden');
    const length = row.lengthMs;
    const found = (row.counts ? await watchersOf(ctx.db, row.id) : [])
      .filter((w) => !teaches(w.role))
      .map((w) => ({ ...w, stretches: watchedTold(w.stretches, row.told) }));
    const watchers: Watchers = {
      counted: row.counts,
      missed: row.counts ? await missedBoth(ctx, row, new Set(found.map((w) => w.member))) : [],
      people: found.map(({ member, name, stretches, at }) => ({
        ...{ member, name, at, share: shareWatched(stretches, length) },
      })),
      curve: watchedByAll(
        found.map((w) => w.stretches),
        length,
      ),
    };
    res.json(watchers);
  });

  router.get('/courses/:course/search', async (req, res) => {
    const me = await asked(ctx, req, 'member');
    const { q } = parse(SearchQuery, req.query);
    const { term } = (await courseById(ctx.db, me.courseId))!;
    const may = (r: RecordingRow) =>
      r.state === 'ready' && mayWatch(r, me, ctx.now()) && !isExpired(r.plan, term.zone, ctx.now());
    res.json(await searched(ctx, { course: me.courseId, q, may }));
  });

  captionRoutes(ctx, router);
  return router;
}

/** Who was not there and has not watched, of those who may; the excused are left in peace. */
async function missedBoth(ctx: Context, row: RecordingRow, watched: ReadonlySet<string>) {
  const [lines, members] = await Promise.all([
    rollLinesWhere(ctx.db, "l.session_id = ? AND l.role = 'student'", [row.sessionId]),
    membersWhere(ctx.db, "m.course_id = ? AND m.role = 'student'", [row.courseId]),
  ]);
  const absent = new Set(lines.filter((l) => markOf(l.line) === 'absent').map((l) => l.line.member));
  return members
    .filter((m) => absent.has(m.id) && !watched.has(m.id) && mayWatch(row, m, ctx.now()))
    .map((m) => ({ member: m.id, name: m.name }));
}

/** Captions in a language, brought in or written anew: by those who teach the course. */
function captionRoutes(ctx: Context, router: Router) {
  const captioned = async (req: Request) => {
    const { id, language } = req.params as { id: string; language: string };
    const [row] = await recordingsWhere(ctx.db, 'r.id', id);
    if (!row) throw new AppError('not-found');
    const me = await requireRight(ctx, await principalOf(ctx, req.headers), row.courseId, 'teach');
    if (!mayWatch(row, me, ctx.now())) throw new AppError('forbidden');
    if (!LANGUAGE.test(language)) throw new AppError('invalid', 'A language is said as “en” or “pt-BR”.');
    if (row.state !== 'ready' || !row.file) throw new AppError('not-ready');
    return { row, file: captionsFile(readyDir(ctx), row.id, language) };
  };

  router.put('/recordings/:id/captions/:language', async (req, res) => {
    const { row, file } = await captioned(req);
    const { text } = parse(CaptionsInput, req.body);
    const written = `${file}.${newId()}`;
    try {
      const cues = readCaptions(text);
      if (!cues.length) throw new AppError('invalid', 'There is no caption in this file.');
      await writeFile(written, writeVtt(await inAll(row, file, cues)));
      await wordsAreOld(ctx.db, row.id);
      await rename(written, file);
      await indexWords(ctx, row.id);
      res.json({ cues: cues.length });
    } catch (error) {
      await rm(written, { force: true });
      throw error instanceof CaptionFault ? new AppError('invalid', error.message) : error;
    }
  });

  router.delete('/recordings/:id/captions/:language', async (req, res) => {
    const { row, file } = await captioned(req);
    await wordsAreOld(ctx.db, row.id);
    await rm(file, { force: true });
    await indexWords(ctx, row.id);
    res.json({});
  });
}

/** Captions of what is told of a recording, among those of what is not: a cut that is taken back has them again. */
async function inAll({ cut, whole }: RecordingRow, file: string, cues: Cue[]): Promise<Cue[]> {
  if (!cut) return cues;
  const all = readCaptions(await readFile(file, 'utf8').catch(() => ''));
  return cuesMended(all, cues, cut.marks, whole.lengthMs);
}
