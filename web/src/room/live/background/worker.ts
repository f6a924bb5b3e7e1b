import type { SelfieSegmentation } from '@mediapipe/selfie_segmentation';
import type { Begin, Frame, Said } from './messages';
import { Pace } from './pace';

/** Where the build puts what finds people: its program and its model, from its package. */
const AT = '/background/';
/** What is behind is drawn this much smaller and large again: that is a blur in every browser, and cheap. */
const COARSE = 32;

const scope = self as unknown as {
  importScripts(...paths: string[]): void;
  postMessage(said: Said): void;
  onmessage: (event: MessageEvent<Begin | Frame>) => void;
  SelfieSegmentation: new (options: { locateFile: (name: string) => string }) => SelfieSegmentation;
};

/**
 * The package was written for a page: of that it is given what it asks for, a way to load its other scripts and a canvas.
 * In a worker as it is it takes its model for a script.
 */
function asInPage() {
  const element = (kind: string) => {
    if (kind === 'canvas') return new OffscreenCanvas(1, 1);
    const script = { src: '', loaded: () => {} };
    return Object.assign(script, {
      setAttribute: (name: string, value: string) => name === 'src' && (script.src = value),
      addEventListener: (name: string, heard: () => void) => name === 'load' && (script.loaded = heard),
    });
  };
  Object.assign(scope, {
    window: scope,
    document: {
      currentScript: { src: `${location.origin}${AT}` },
      addEventListener: () => {},
      createElement: element,
      querySelector: () => null,
      getElementById: () => null,
      body: {
        appendChild: (script: { src: string; loaded: () => void }) => {
          scope.importScripts(script.src);
          script.loaded();
        },
      },
    },
  });
}

async function finder(found: (mask: CanvasImageSource) => void): Promise<SelfieSegmentation> {
  asInPage();
  scope.importScripts(`${AT}selfie_segmentation.js`);
  const finds = new scope.SelfieSegmentation({ locateFile: (name) => `${AT}${name}` });
  finds.setOptions({ modelSelection: 1 });
  finds.onResults(({ segmentationMask }) => found(segmentationMask));
  await finds.initialize();
  return finds;
}

const canvasOf = (canvas: OffscreenCanvas) => ({ canvas, draws: canvas.getContext('2d')! });

/** Draws frames: whoever is found in one as they are, and something else behind them. */
async function drawer({ behind, picture, canvas }: Begin) {
  const camera = canvasOf(new OffscreenCanvas(1, 1));
  const coarse = canvasOf(new OffscreenCanvas(1, 1));
  const out = canvasOf(canvas ?? new OffscreenCanvas(1, 1));
  let mask: CanvasImageSource | null = null;
  const finds = await finder((found) => (mask = found));
  const size = (of: { canvas: OffscreenCanvas }, width: number, height: number) => {
    if (of.canvas.width !== width || of.canvas.height !== height) Object.assign(of.canvas, { width, height });
  };
  const behindThem = (frame: CanvasImageSource, width: number, height: number) => {
    if (behind === 'picture' && picture) {
      // As much of it as fills the frame, its middle.
      const scale = Math.max(width / picture.width, height / picture.height);
      const [w, h] = [picture.width * scale, picture.height * scale];
      return out.draws.drawImage(picture, (width - w) / 2, (height - h) / 2, w, h);
    }
    const [w, h] = [Math.ceil(width / COARSE), Math.ceil(height / COARSE)];
    size(coarse, w, h);
    coarse.draws.drawImage(frame, 0, 0, w, h);
    out.draws.imageSmoothingQuality = 'high';
    out.draws.drawImage(coarse.canvas, 0, 0, width, height);
  };
  return async (frame: CanvasImageSource, width: number, height: number): Promise<OffscreenCanvas> => {
    for (const of of [camera, out]) size(of, width, height);
    camera.draws.drawImage(frame, 0, 0, width, height);
    const seen = camera.canvas.transferToImageBitmap();
    mask = null;
    await finds.send({ image: seen as unknown as HTMLCanvasElement });
    if (!mask) throw new Error('Nothing was found of this frame.');
    const { draws } = out;
    draws.globalCompositeOperation = 'copy';
    draws.drawImage(mask, 0, 0, width, height);
    draws.globalCompositeOperation = 'source-in';
    draws.drawImage(seen, 0, 0, width, height);
    draws.globalCompositeOperation = 'destination-over';
    behindThem(seen, width, height);
    seen.close();
    return out.canvas;
  };
}

async function work(begin: Begin) {
  const draw = await drawer(begin);
  const pace = new Pace();
  /** One frame; false where that is too slow by now. */
  const timed = async (frame: CanvasImageSource, width: number, height: number) => {
    const began = performance.now();
    const canvas = await draw(frame, width, height);
    if (!pace.holds(performance.now() - began)) scope.postMessage('slow');
    return canvas;
  };
  scope.onmessage = ({ data }) => {
    const { frame } = data as Frame;
    timed(frame, frame.width, frame.height).then(
      () => (frame.close(), scope.postMessage('drawn')),
      () => scope.postMessage('cannot'),
    );
  };
  const { reads, writes } = begin;
  if (!reads || !writes) return scope.postMessage('drawn');
  const drawn = new TransformStream<VideoFrame, VideoFrame>({
    transform: async (frame, to) => {
      const canvas = await timed(frame, frame.displayWidth, frame.displayHeight);
      to.enqueue(new VideoFrame(canvas, { timestamp: frame.timestamp }));
      frame.close();
    },
  });
  await reads.pipeThrough(drawn).pipeTo(writes);
}

scope.onmessage = ({ data }) => void work(data as Begin).catch(() => scope.postMessage('cannot'));
