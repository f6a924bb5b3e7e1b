import { Router } from 'express';
import { z } from 'zod';
import type { ClassNotesInfo, NotesThen, WrittenBy } from '@nimble-bell/core/api';
import { Hands } from '@nimble-bell/core/hands';
import { CLASS, evolve, newRoom, tablesHad } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { membersWhere, type MemberRow } from '../accounts/store';
import type { Context } from '../context';
import type { LayeredSession } from '../courses/store';
import { AppError, parse } from '../errors';
import { watchedBy } from '../recordings/watchable';
import { eventsOf } from '../room/store';
import { here } from '../sessions/here';
import { docOf, lettersBy, textOf } from './read';
import { knownOf, textAt } from './shared';
import { placesOf, updatesOf, type DocumentOf } from './store';

const At = z.object({ at: z.coerce.number().int().min(0) });

/** The places whose notes somebody may read afterwards, by their titles: the class's, and those of tables they sat at. */
async function placesFor(ctx: Context, session: LayeredSession, { id, role }: MemberRow) {
  const written = await placesOf(ctx.db, session.id, 'notes');
  const own = written.includes(CLASS) ? [{ place: CLASS, title: 'The class' }] : [];
  if (session.state !== 'held' || written.length === own.length) return own;
  const room = (await eventsOf(ctx.db, session.id)).reduce(evolve, newRoom());
  const tables = tablesHad(room, { member: id, role }).filter((t) => written.includes(t.place));
  return [...own, ...tables.map(({ place, name }) => ({ place, title: name }))];
}

/** By whom of a class how much of what stands is, the most first. */
function writtenBy(
  letters: ReadonlyMap<string | null, number>,
  nameOf: (member: string) => string | undefined,
): WrittenBy[] {
  const by = new Map<string, number>();
  for (const [member, count] of letters) {
    const name = (member && nameOf(member)) || 'Somebody';
    by.set(name, (by.get(name) ?? 0) + count);
  }
  return [...by].map(([name, count]) => ({ name, letters: count })).sort((a, b) => b.letters - a.letters);
}

async function handsIn(ctx: Context, of: DocumentOf): Promise<Hands> {
  const { hands, moved } = await knownOf(ctx.db, of);
  return new Hands(hands, moved);
}

/** What a class wrote together, for everybody whom its session is for. */
export function notesRoutes(ctx: Context): Router {
  const router = Router();

  router.get('/sessions/:id/notes', async (req, res) => {
    const { session, me } = await here(ctx, req);
    const named = teaches(me.role);
    const members = named ? await membersWhere(ctx.db, 'm.course_id = ?', [session.courseId]) : [];
    const names = new Map(members.map((m) => [m.id, m.name]));
    const all: ClassNotesInfo['notes'] = [];
    for (const { place, title } of await placesFor(ctx, session, me)) {
      const of = { session: session.id, place, name: 'notes' };
      const doc = docOf(await updatesOf(ctx.db, of));
      const text = textOf(doc);
      const by = named ? writtenBy(lettersBy(doc, await handsIn(ctx, of)), (m) => names.get(m)) : [];
      if (text) all.push({ place, title, text, by });
    }
    res.json({ notes: all } satisfies ClassNotesInfo);
  });

  /** What stood in a class's notes at an instant of its recording; but for those who teach, without what was taken away since. */
  router.get('/recordings/:id/class-notes/:at', async (req, res) => {
    const { row, who } = await watchedBy(ctx, req);
    if (row.plan?.leavesOut?.includes('notes')) throw new AppError('not-found');
    const { at } = parse(At, req.params);
    const of = { session: row.sessionId, place: CLASS, name: 'notes' };
    res.json({ text: await textAt(ctx.db, of, at, !teaches(who.role)) } satisfies NotesThen);
  });
  return router;
}
