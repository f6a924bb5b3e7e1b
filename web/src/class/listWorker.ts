import { readAndCompare } from '@nimble-bell/core/roster';
import type { ReadOrder } from './listReader';

/** Reads a class list off the page's thread. */
self.onmessage = ({ data }: MessageEvent<{ id: number; order: ReadOrder }>) => {
  const { id, order } = data;
  const { fields, mended, settled, ...rest } = order;
  try {
    const answer = readAndCompare({
      ...rest,
      ...(fields ? { fields } : {}),
      mended: new Map(mended),
      settled: new Map(settled),
    });
    self.postMessage({ id, answer });
  } catch (error) {
    self.postMessage({ id, fault: error instanceof Error ? error.message : String(error) });
  }
};
