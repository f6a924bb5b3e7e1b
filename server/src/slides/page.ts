import type { Response } from 'express';
import { z } from 'zod';
import type { Context } from '../context';
import { pageFile, readDeck } from './decks';

/** Which page of which deck: a path's end. */
export const PageOf = z.object({
  deck: z.string().regex(/^[0-9a-f]{64}$/),
  page: z.coerce.number().int().min(1),
});

/** A page of a deck as a file; it is the same for good. */
export async function sendPage(ctx: Context, deck: string, page: number, res: Response): Promise<void> {
  const file = await pageFile(ctx, deck, page);
  const kind = (await readDeck(ctx, deck))!.kind;
  res.set('X-Content-Type-Options', 'nosniff');
  res.sendFile(file, {
    dotfiles: 'allow',
    headers: {
      'Content-Type': kind === 'pdf' ? 'application/pdf' : 'application/octet-stream',
      'Cache-Control': 'private, no-cache',
    },
  });
}
