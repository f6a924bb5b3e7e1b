import { Router } from 'express';
import { NoteAnswer, NoteInput, type NoteInfo } from '@nimble-bell/core/api';
import { mayWatch, shownAt, sourceAt } from '@nimble-bell/core/recording';
import { teaches } from '@nimble-bell/core/roster';
import { membersWhere } from '../../accounts/store';
import { newId, type Context } from '../../context';
import { AppError, parse } from '../../errors';
import { queueLetters } from '../../mail/queue';
import type { Db } from '../../db/pool';
import type { RecordingRow } from '../../recordings/store';
import { once } from '../../requests/once';
import { answerNote, countNotes, insertNote, noteById, notesOf, removeNote } from './store';
import { watchedBy } from '../../recordings/watchable';
import { holdWriter } from '../../writing/store';

/** So many may somebody have of one recording. */
const MOST = 500;

/**
 * What one keeps at a moment of a recording for oneself, and what one asks those who teach: that comes to them as a letter
 * with the moment in it, and they answer it at the same place.
 */
export function noteRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/recordings/:id/notes', async (req, res) => {
    const { row, who: me } = await watchedBy(ctx, req);
    const notes = await notesOf(ctx.db, row.id, me.id, teaches(me.role));
    res.json(
      notes.map(({ member, name, position, ...note }): NoteInfo => ({
        ...note,
        position: Math.round(shownAt(row.told, position)),
        by: member === me.id ? null : name,
      })),
    );
  });

  router.post('/recordings/:id/notes', async (req, res) => {
    const { row, who: me } = await watchedBy(ctx, req);
    const { position, text, asks } = parse(NoteInput, req.body);
    const answer = await once(ctx, req, async (db) => {
      // Of several at once each counts the ones before.
      await holdWriter(db, me.id);
      if ((await countNotes(db, row.id, me.id)) >= MOST)
        throw new AppError('busy', `At most ${MOST} a person and recording.`);
      const id = newId();
      const kind = asks && !teaches(me.role) ? 'question' : 'note';
      const at = ctx.now();
      // Kept by what was recorded: it outlives every cut.
      const recorded = sourceAt(row.told, position);
      await insertNote(db, { id, recording: row.id, member: me.id, position: recorded, kind, text, at });
      if (kind === 'question') await sendQuestion(db, row, { id, position, text, at, name: me.name });
      return { id };
    });
    res.status(201).json(answer);
  });

  router.put('/recordings/:id/notes/:note/answer', async (req, res) => {
    const { row, who: me } = await watchedBy(ctx, req);
    if (!teaches(me.role)) throw new AppError('forbidden');
    const { answer } = parse(NoteAnswer, req.body);
    const note = await noteById(ctx.db, row.id, req.params.note);
    if (note?.kind !== 'question') throw new AppError('not-found');
    await answerNote(ctx.db, note.id, answer, me.id);
    res.json({});
  });

  router.delete('/recordings/:id/notes/:note', async (req, res) => {
    const { row, who: me } = await watchedBy(ctx, req);
    const note = await noteById(ctx.db, row.id, req.params.note as string);
    if (note?.member !== me.id) throw new AppError('not-found');
    await removeNote(ctx.db, note.id);
    res.json({});
  });
  return router;
}

/** A letter to each who teaches and may watch it, with the moment in it. */
async function sendQuestion(
  db: Db,
  row: RecordingRow,
  { id, at, ...question }: { id: string; at: number; position: number; text: string; name: string },
) {
  const teaching = await membersWhere(db, "m.course_id = ? AND m.role IN ('teacher', 'assistant')", [
    row.courseId,
  ]);
  await queueLetters(db, {
    courseId: row.courseId,
    topic: 'question',
    cause: id,
    members: teaching.filter((m) => mayWatch(row, m, at)).map((m) => m.id),
    dueAt: at,
    about: { recording: row.id, session: row.sessionId, ...question },
  });
}
