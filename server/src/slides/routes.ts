import { Router } from 'express';
import { z } from 'zod';
import type { DeckInfo, DeckText } from '@nimble-bell/core/api';
import { isHere, pagesFor } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import type { Context } from '../context';
import { AppError, parse } from '../errors';
import { materialById, type MaterialRow } from '../materials/store';
import { RoomReader } from '../room/reader';
import { here } from '../sessions/here';
import { taught } from '../sessions/taught';
import { Decks, isDeck, readDeck, wordsOn } from './decks';
import { PageOf, sendPage } from './page';
import { filesFor, hadFile, keepPageNote, pageNotesOf } from './store';

const Note = z.object({ text: z.string().trim().max(4000, 'At most 4,000 characters.') });

/** Files that are shown page by page: made ready by those who teach, each page had by whoever may see it now. */
export function slidesRoutes(ctx: Context): Router {
  const router = Router();
  const decks = new Decks(ctx);
  const reader = new RoomReader();

  const infoOf = async ({ id: material, hash, name, bytes }: MaterialRow): Promise<DeckInfo> => {
    const [made, under] = [await readDeck(ctx, hash!), decks.preparing(hash!)];
    return {
      ...{ material, name, bytes: Number(bytes) },
      deck: made && { id: hash!, name, ...made },
      preparing: under && 'done' in under ? under : null,
      why: under && 'why' in under ? under.why : null,
    };
  };

  router.get('/sessions/:id/decks', async (req, res) => {
    const { session } = await taught(ctx, req);
    const files = await filesFor(ctx.db, session.courseId, session.id);
    res.json(await Promise.all(files.filter((f) => isDeck(f.type)).map(infoOf)));
  });

  /** Makes one ready. It is answered when that is begun; how far it is stands in the list. */
  router.post('/sessions/:id/decks/:material', async (req, res) => {
    const { session } = await taught(ctx, req);
    const row = await materialById(ctx.db, req.params.material);
    if (row?.courseId !== session.courseId || !row.hash) throw new AppError('not-found');
    if (!isDeck(row.type)) throw new AppError('wrong-type', 'Only PDF files and pictures have pages.');
    const { hash, name, type } = row;
    // What is small is ready within the answer.
    const soon = new Promise((resolve) => setTimeout(resolve, 400));
    await Promise.race([decks.prepare({ hash, name, type }), soon]);
    res.json(await infoOf(row));
  });

  /** What is read on its pages, and what is noted to them. */
  router.get('/sessions/:id/decks/:deck/text', async (req, res) => {
    const { session } = await taught(ctx, req);
    const deck = req.params.deck;
    if (!(await hadFile(ctx.db, session.courseId, deck))) throw new AppError('not-found');
    const notes: DeckText['notes'] = {};
    for (const { page, text } of await pageNotesOf(ctx.db, session.courseId, deck)) notes[page] = text;
    res.json({ words: await wordsOn(ctx, deck), notes } satisfies DeckText);
  });

  router.put('/sessions/:id/decks/:deck/notes/:page', async (req, res) => {
    const { session } = await taught(ctx, req);
    const { deck, page } = parse(PageOf, req.params);
    const { text } = parse(Note, req.body);
    if (!(await hadFile(ctx.db, session.courseId, deck))) throw new AppError('not-found');
    const made = await readDeck(ctx, deck);
    if (!made || page > made.pages) throw new AppError('not-found', 'There is no such page.');
    await keepPageNote(ctx.db, session.courseId, deck, page, text);
    res.json({});
  });

  /** A page, for whoever may have it at this moment: no page is sent that was not shown, but where all leaf freely. */
  router.get('/sessions/:id/slides/:deck/:page', async (req, res) => {
    const { session, me } = await here(ctx, req);
    const { deck, page } = parse(PageOf, req.params);
    const room = await reader.room(ctx.db, session.id);
    const teacher = teaches(me.role) && (await hadFile(ctx.db, session.courseId, deck));
    const seen = isHere(room, me.id) && pagesFor(room, { member: me.id, role: me.role }, deck).includes(page);
    if (!teacher && !seen) throw new AppError('forbidden', 'This page is not shown.');
    await sendPage(ctx, deck, page, res);
  });
  return router;
}
