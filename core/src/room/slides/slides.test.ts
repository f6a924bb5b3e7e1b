import { ana, lecture, maren } from '../../testing/index';
import { CLASS } from '../kernel/place';
import { snapshotFor } from '../kernel/audience';
import { frontOf } from '../stage/index';
import { leafsTo, pagesFor, slidesAt } from './index';
import type { Deck } from './state';

const TIDES: Deck = { id: 'a'.repeat(64), name: 'Tides.pdf', kind: 'pdf', pages: 5 };
const STROKE = { points: [0.1, 0.1, 0.5, 0.5], colour: 'clay' as const };

const shown = () => {
  const room = lecture();
  room.do(maren, { type: 'showSlides', deck: TIDES, page: 1 });
  return room;
};

test('a student may have the pages that were shown, and no other; leafing is as far as it is let', () => {
  const room = shown();
  const has = () => pagesFor(room.state, ana, TIDES.id);
  const leafs = () => leafsTo(room.state, ana);
  expect(frontOf(room.state, CLASS)).toBe('slides');
  expect(has()).toEqual([1]);
  room.do(maren, { type: 'turnSlide', page: 4 });
  expect(has()).toEqual([1, 4]);
  expect(leafs()).toEqual([]);
  expect(leafsTo(room.state, maren)).toEqual([1, 2, 3, 4, 5]);
  room.do(maren, { type: 'letLeaf', leafing: 'back' });
  expect(leafs()).toEqual([1, 4]);
  room.do(maren, { type: 'letLeaf', leafing: 'freely' });
  expect(leafs()).toEqual([1, 2, 3, 4, 5]);
  room.do(maren, { type: 'letLeaf', leafing: 'together' });
  expect(has()).toEqual([1, 4]);
  expect(pagesFor(room.state, ana, 'b'.repeat(64))).toEqual([]);
  // Put away, what was shown stays what they have seen.
  room.do(maren, { type: 'putSlidesAway' });
  expect(frontOf(room.state, CLASS)).toBe('picture');
  expect(has()).toEqual([1, 4]);
});

test('pages there are not, none where nothing lies open, and what is so already changes nothing', () => {
  const room = lecture();
  expect(room.refusal(maren, { type: 'turnSlide', page: 2 })?.code).toBe('no-slides');
  expect(room.refusal(maren, { type: 'showSlides', deck: TIDES, page: 6 })?.code).toBe('no-page');
  room.do(maren, { type: 'showSlides', deck: TIDES, page: 2 });
  const { seq } = room.state;
  room.do(maren, { type: 'turnSlide', page: 2 });
  room.do(maren, { type: 'letLeaf', leafing: 'together' });
  room.do(maren, { type: 'clearMarks', page: 2 });
  room.do(maren, { type: 'frameSlide', frame: { fit: 'page', zoom: 1, x: 0.5, y: 0.5 } });
  expect(room.state.seq).toBe(seq);
  expect(room.refusal(maren, { type: 'turnSlide', page: 6 })?.code).toBe('no-page');
});

test('marks belong to their page: they come back with it, are wiped off it alone, and miss one that was turned', () => {
  const room = shown();
  room.do(maren, { type: 'setLimit', capability: 'draw', state: 'open' });
  const mark = (page: number) => ({ type: 'markSlide' as const, deck: TIDES.id, page, stroke: STROKE });
  room.do(ana, mark(1));
  expect(room.refusal(ana, mark(2))?.code).toBe('page-turned');
  room.do(maren, { type: 'turnSlide', page: 2 });
  expect(room.refusal(ana, mark(1))?.code).toBe('page-turned');
  room.do(ana, mark(2));
  const pages = () => room.state.slides.marks.map((m) => m.page);
  expect(pages()).toEqual([1, 2]);
  room.do(maren, { type: 'clearMarks', page: 2 });
  expect(pages()).toEqual([1]);
  room.do(maren, { type: 'setLimit', capability: 'draw', state: 'closed' });
  expect(room.refusal(ana, mark(2))?.code).toBe('closed');
});

test('a page is enlarged until it is turned, wide until that is taken back; dismissed, nothing lies open', () => {
  const room = shown();
  const frame = { fit: 'width' as const, zoom: 3, x: 0.2, y: 0.8 };
  room.do(maren, { type: 'frameSlide', frame });
  expect(slidesAt(room.state, CLASS)?.frame).toEqual(frame);
  room.do(maren, { type: 'turnSlide', page: 2 });
  expect(slidesAt(room.state, CLASS)?.frame).toEqual({ fit: 'width', zoom: 1, x: 0.5, y: 0.5 });
  room.do(maren, { type: 'dismiss' });
  expect(slidesAt(room.state, CLASS)).toBeNull();
});

test('a late page is told what lies open where it is, and nothing of elsewhere', () => {
  const room = shown();
  room.happen({
    type: 'slidesShown',
    by: 'maren',
    deck: { ...TIDES, id: 'c'.repeat(64) },
    page: 3,
    place: 'table-1',
  });
  expect(Object.keys(snapshotFor(room.state, ana).slides.on)).toEqual([CLASS]);
  expect(Object.keys(snapshotFor(room.state, ana).slides.seen)).toEqual([CLASS]);
  expect(Object.keys(snapshotFor(room.state, maren).slides.on)).toEqual([CLASS, 'table-1']);
});

test('what is before everybody is said by whoever teaches, and is the picture where somebody presents', () => {
  const room = lecture();
  room.do(maren, { type: 'setFront', tool: 'board' });
  expect(frontOf(room.state, CLASS)).toBe('board');
  room.do(maren, { type: 'present', on: true });
  expect(frontOf(room.state, CLASS)).toBe('picture');
  room.do(maren, { type: 'setFront', tool: 'notes' });
  room.do(maren, { type: 'present', on: false });
  expect(frontOf(room.state, CLASS)).toBe('notes');
});
