import type { Frame, Mark, OnBoard, PageMark, PutPicture, Stroke } from '../room/index';
import { framed } from './framed';
import { LETTERS, lineAt, linesOf, slipBox } from './lettering';
import { HEIGHT, outlineOf, outlineOnce, WIDTH } from './outline';
import { groundPath, SHAPE_LINE, shapePath } from './shapes';

/** The pens on white paper: what is drawn into a file has one look, whatever theme its reader has. */
const INKS: Record<Stroke['colour'], string> = {
  ink: '#22302b',
  pine: '#1e5244',
  brass: '#c8921f',
  clay: '#b4472e',
  tide: '#2f6f8f',
};
const PAPER = '#ffffff';
/** ffmpeg's filters that keep of every frame what is dark in it: sheets that follow each other, each over those before. */
export const DARKER = 'format=gbrp,negate,lagfun=decay=1,negate';

const MARKUP: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;' };
/** Words as XML has them; characters that XML knows none of are left out. */
const inXml = (text: string): string =>
  text.replace(/[\u0000-\u001F\uFFFE\uFFFF]/g, '').replace(/[&<>]/g, (c) => MARKUP[c]!);

/** A page of slides as it was looked at: its picture, and how tall it is for its width. */
export interface SheetPage {
  /** A PNG, base64. */
  png: string;
  ratio: number;
}

/** Around a page that is smaller than its sheet. */
const GROUND = '#12352c';

/**
 * A page as an SVG document of its own, as much of it as the frame says, with what was marked on it; the ground alone where
 * there is no picture of it.
 */
export function slideSvg(
  page: SheetPage | null,
  { frame, marks }: { frame: Frame; marks: readonly PageMark[] },
  width = WIDTH,
): string {
  const height = Math.round((width * HEIGHT) / WIDTH);
  const head = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><rect width="${width}" height="${height}" fill="${GROUND}"/>`;
  if (!page) return `${head}</svg>`;
  const { png, ratio } = page;
  const at = framed(ratio, frame, { width, height });
  const tall = at.width * ratio;
  const drawn = marks.map((m) => `<path d="${outlineOf(m, WIDTH * ratio)}" fill="${INKS[m.colour]}"/>`);
  const scale = at.width / WIDTH;
  return `${head}<image x="${at.left}" y="${at.top}" width="${at.width}" height="${tall}" preserveAspectRatio="none" xlink:href="data:image/png;base64,${png}"/><g transform="translate(${at.left} ${at.top}) scale(${scale})">${drawn.join('')}</g></svg>`;
}

/** What a side is ruled with, and the paper of slips. */
const RULING = '#c9d5cf';
const SLIP = '#f6e7c4';

/** Where a picture stands, in the board's units, and what it is of. */
export const pictureAt = ({ jpeg, from: [x, y], to }: Pick<PutPicture, 'jpeg' | 'from' | 'to'>) => ({
  ...{ x: x * WIDTH, y: y * HEIGHT, width: (to[0] - x) * WIDTH, height: (to[1] - y) * HEIGHT },
  href: `data:image/jpeg;base64,${jpeg}`,
});

function pictureSvg(m: PutPicture): string {
  const { href, ...at } = pictureAt(m);
  const where = Object.entries(at).map(([key, value]) => `${key}="${value}"`);
  return `<image ${where.join(' ')} preserveAspectRatio="none" xlink:href="${href}"/>`;
}

function markSvg(m: Mark): string {
  if (m.kind === 'picture') return pictureSvg(m);
  const ink = INKS[m.colour];
  if (m.kind === 'stroke') return `<path d="${outlineOnce(m)}" fill="${ink}"/>`;
  if (m.kind === 'shape')
    return `<path d="${shapePath(m)}" fill="none" stroke="${ink}" stroke-width="${SHAPE_LINE}" stroke-linecap="round" stroke-linejoin="round"/>`;
  const lines = linesOf(m.text).map((line, i) => {
    const [x, y] = lineAt(m.at, i);
    return `<text x="${x}" y="${y}" font-size="${LETTERS}" fill="${ink}">${inXml(line)}</text>`;
  });
  if (!m.slip) return lines.join('');
  const { x, y, width, height } = slipBox(m);
  return `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${SLIP}" stroke="${INKS.brass}" stroke-width="2"/>${lines.join('')}`;
}

/** A board as an SVG document of its own, so many pixels wide. */
export function boardSvg({ marks, ground }: OnBoard, width = WIDTH): string {
  const height = Math.round((width * HEIGHT) / WIDTH);
  const ruled = groundPath(ground);
  const under = ruled ? `<path d="${ruled}" fill="none" stroke="${RULING}" stroke-width="2"/>` : '';
  return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="${width}" height="${height}" viewBox="0 0 ${WIDTH} ${HEIGHT}" font-family="sans-serif" font-weight="500"><rect width="${WIDTH}" height="${HEIGHT}" fill="${PAPER}"/>${under}${marks.map(markSvg).join('')}</svg>`;
}
