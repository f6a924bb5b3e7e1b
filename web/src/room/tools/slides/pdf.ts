import { getDocument, GlobalWorkerOptions } from 'pdfjs-dist/legacy/build/pdf.mjs';
import workerSrc from 'pdfjs-dist/legacy/build/pdf.worker.min.mjs?url';
import type { Drawable } from './pages';

GlobalWorkerOptions.workerSrc = workerSrc;

/** What the library needs beside it ships with the pages: nothing is fetched from elsewhere. */
const BESIDE = {
  cMapUrl: '/pdf/cmaps/',
  cMapPacked: true,
  standardFontDataUrl: '/pdf/standard_fonts/',
  wasmUrl: '/pdf/wasm/',
  iccUrl: '/pdf/iccs/',
  isEvalSupported: false,
} as const;

/** A document of one page, ready to be drawn at any size; drawn by the library in its worker. */
export async function readPdf(data: ArrayBuffer): Promise<Drawable> {
  const document = await getDocument({ data, ...BESIDE }).promise;
  const page = await document.getPage(1);
  const whole = page.getViewport({ scale: 1 });
  const { items } = await page.getTextContent();
  return {
    ratio: whole.height / whole.width,
    text: items.map((i) => ('str' in i ? i.str + (i.hasEOL ? '\n' : '') : '')).join(''),
    draw: (canvas, { width, left, top }) => {
      const viewport = page.getViewport({
        scale: width / whole.width,
        offsetX: left,
        offsetY: top,
        dontFlip: false,
      });
      const task = page.render({ canvas, viewport });
      return { done: task.promise, cancel: () => task.cancel() };
    },
    close: () => void document.loadingTask.destroy(),
  };
}
