import { boardSvg } from '@nimble-bell/core/board';
import type { OnBoard } from '@nimble-bell/core/room';
import { download, downloadText } from '../../../ui/download';
import { picturesPdf } from './picturesPdf';

/** So wide a saved picture is, pixels. */
const WIDTH = 2400;

/** Hands sides of a board over as a file: a PNG or an SVG of the first, or a PDF with a page of each. */
export async function saveBoard(sides: readonly OnBoard[], as: 'png' | 'svg' | 'pdf', name: string) {
  const [first] = sides as [OnBoard];
  if (as === 'svg') return downloadText(`${name}.svg`, boardSvg(first), 'image/svg+xml');
  if (as === 'png') return download(`${name}.png`, await drawn(first, 'image/png'));
  const pages = [];
  for (const side of sides) pages.push(new Uint8Array(await (await drawn(side, 'image/jpeg')).arrayBuffer()));
  download(`${name}.pdf`, new Blob([picturesPdf(pages, sizeOf(WIDTH))], { type: 'application/pdf' }));
}

const sizeOf = (width: number) => ({ width, height: Math.round((width * 9) / 16) });

/** A side of a board as a picture. */
async function drawn(on: OnBoard, type: 'image/png' | 'image/jpeg'): Promise<Blob> {
  const { width, height } = sizeOf(WIDTH);
  const picture = new Image(width, height);
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(boardSvg(on, WIDTH))}`;
  await picture.decode();
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width, height });
  canvas.getContext('2d')!.drawImage(picture, 0, 0, width, height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), type, 0.92),
  );
}
