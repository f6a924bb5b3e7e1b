import type { Response } from 'express';
import { z } from 'zod';
import { pagesIn, type PageRead } from '@nimble-bell/core/watching';
import type { Told } from '../recordings/told';
import type { Context } from '../context';
import { pageFile, wordsOn } from './decks';

/** Which page of which deck: a path's end. */
export const PageOf = z.object({
  deck: z.string().regex(/^[0-9a-f]{64}$/),
  page: z.coerce.number().int().min(1),
});

/** A page of a deck as a file; it is the same for good. */
export async function sendPage(ctx: Context, deck: string, page: number, res: Response): Promise<void> {
  const { kind, file } = await pageFile(ctx, deck, page);
  res.set('X-Content-Type-Options', 'nosniff');
  res.sendFile(file, {
    dotfiles: 'allow',
    headers: {
      'Content-Type': kind === 'pdf' ? 'application/pdf' : 'application/octet-stream',
      'Cache-Control': 'private, no-cache',
    },
  });
}

/** What is read on the pages that a class looked at, in the order in which it did. */
export async function readIn(
  ctx: Context,
  { parts, events }: Pick<Told, 'parts' | 'events'>,
): Promise<PageRead[]> {
  const shown = pagesIn(parts, events);
  const words = new Map<string, string[]>();
  for (const { deck } of shown) if (!words.has(deck)) words.set(deck, await wordsOn(ctx, deck));
  return shown.flatMap(({ deck, page, position }) => {
    const text = (words.get(deck)![page - 1] ?? '').replace(/\s+/g, ' ').trim();
    return text ? [{ position, text }] : [];
  });
}
