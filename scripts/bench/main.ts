import { startProduct } from '../../e2e/support/product';
import { asked as askedAtOnce } from './asked';
import { clapper } from './clapper';
import { clashes, makeUps } from './clashes';
import { classList } from './classList';
import { college } from './college';
import { dates } from './dates';
import { knocking } from './door';
import { keystroke } from './keystroke';
import { limits, resolving } from './limits';
import { letters } from './letters';
import { room, ROOM_PARTS } from './room';
import { lighthouseScores } from './lighthouse';
import { media } from './media';
import { recording } from './recording';
import { review } from './review';
import { slides } from './slides';
import { strokes } from './strokes';
import { notes } from './notes';
import { print, type Figure } from './table';
import { tables } from './tables';
import { wall } from './wall';

const asked = process.argv.slice(2);
const wants = (name: string) => asked.length === 0 || asked.includes(name);
/** A class in its real length: only where it is asked for. */
const wantsClapper = asked.includes('clapper');

const figures: Figure[] = [];
if (wants('dates')) figures.push(...dates());
if (wants('limits')) figures.push(...resolving());
if (wants('clashes')) figures.push(...clashes(), ...makeUps());
if (
  wants('letters') ||
  wants('class-list') ||
  wants('keystroke') ||
  wants('door') ||
  wants('limits') ||
  wants('college') ||
  wants('lighthouse') ||
  ROOM_PARTS.some(wants) ||
  wants('room') ||
  wants('review') ||
  wants('recording') ||
  wants('media') ||
  wants('asked') ||
  wants('slides') ||
  wants('tables') ||
  wants('notes') ||
  wants('strokes') ||
  wants('wall') ||
  wantsClapper
) {
  const stop = await startProduct();
  try {
    if (wants('letters')) figures.push(...(await letters()));
    if (wants('class-list')) figures.push(...(await classList()));
    if (wants('limits')) figures.push(...(await limits()));
    if (wants('door')) figures.push(...(await knocking()));
    if (wants('keystroke')) figures.push(...(await keystroke()));
    if (wants('room') || ROOM_PARTS.some(wants)) figures.push(...(await room(wants)));
    if (wants('tables')) figures.push(...(await tables()));
    if (wants('notes')) figures.push(...(await notes()));
    if (wants('strokes')) figures.push(...(await strokes()));
    if (wants('asked')) figures.push(...(await askedAtOnce()));
    if (wants('slides')) figures.push(...(await slides()));
    if (wants('wall')) figures.push(...(await wall()));
    if (wants('media')) figures.push(...(await media()));
    if (wants('recording')) figures.push(...(await recording()));
    if (wants('review')) figures.push(...(await review()));
    if (wantsClapper) figures.push(...(await clapper()));
    if (wants('lighthouse')) figures.push(...(await lighthouseScores()));
    // Last: the college that it lays stays in the database.
    if (wants('college')) figures.push(...(await college()));
  } finally {
    await stop();
  }
}
print(figures);
