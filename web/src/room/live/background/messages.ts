/** What is behind somebody in their picture: what is there, that blurred, or a picture of theirs. */
export type Behind = 'plain' | 'blurred' | 'picture';

/** What the worker is begun with. Frames come from a reader of its own where the browser has such, else one by one. */
export interface Begin {
  behind: Exclude<Behind, 'plain'>;
  picture: ImageBitmap | null;
  /** Where what is drawn goes to: a track's writer, or a canvas of the page. */
  reads: ReadableStream<VideoFrame> | null;
  writes: WritableStream<VideoFrame> | null;
  canvas: OffscreenCanvas | null;
}

/** One frame of the camera, where the browser has no reader for a worker. */
export interface Frame {
  frame: ImageBitmap;
}

/** What the worker says: that a frame was drawn and the next may come, that it is too slow, or that it cannot. */
export type Said = 'drawn' | 'slow' | 'cannot';
