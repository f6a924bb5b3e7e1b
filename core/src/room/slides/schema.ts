import { z } from 'zod';
import { Stroke } from '../board/schema';
import { MemberId, message, Place } from '../kernel/schema';
import { MOST_ZOOM } from './state';

const Page = z.int().min(1).max(5000);
const DeckId = z.string().regex(/^[0-9a-f]{64}$/);
const Fraction = z.number().min(0).max(1);

export const Deck = z.object({
  id: DeckId,
  name: z.string().min(1).max(160),
  kind: z.enum(['pdf', 'picture']),
  pages: Page,
});
const Frame = z.object({
  fit: z.enum(['page', 'width']),
  zoom: z.number().min(1).max(MOST_ZOOM),
  x: Fraction,
  y: Fraction,
});
const Leafing = z.enum(['together', 'back', 'freely']);

export const slidesCommands = {
  /** Lays a deck open for everybody; the server looks whether it is one of this course. */
  showSlides: message('showSlides', { deck: Deck, page: Page }),
  turnSlide: message('turnSlide', { page: Page }),
  frameSlide: message('frameSlide', { frame: Frame }),
  letLeaf: message('letLeaf', { leafing: Leafing }),
  putSlidesAway: message('putSlidesAway', {}),
  /** A stroke on the page that is shown. */
  markSlide: message('markSlide', { deck: DeckId, page: Page, stroke: Stroke }),
  clearMarks: message('clearMarks', { page: Page }),
};

export const slidesEvents = {
  slidesShown: message('slidesShown', { by: MemberId, deck: Deck, page: Page, place: Place }),
  slideTurned: message('slideTurned', { by: MemberId, page: Page, place: Place }),
  slideFramed: message('slideFramed', { by: MemberId, frame: Frame, place: Place }),
  leafingSet: message('leafingSet', { by: MemberId, leafing: Leafing, place: Place }),
  slidesPutAway: message('slidesPutAway', { by: MemberId, place: Place }),
  slideMarked: message('slideMarked', {
    by: MemberId,
    deck: DeckId,
    page: Page,
    stroke: Stroke,
    place: Place,
  }),
  marksCleared: message('marksCleared', { by: MemberId, deck: DeckId, page: Page, place: Place }),
};
