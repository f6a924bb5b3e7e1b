import type { RecordingDetail } from '@nimble-bell/core/api';

export type SeenPicture = RecordingDetail['pictures'][number];

/** How what is seen is laid out: the screen large with the camera beside it, the camera large, or one without the other. */
export const VIEWS = ['screen', 'camera', 'alone'] as const;
export type View = (typeof VIEWS)[number];
export const VIEW_WORDS: Record<View, string> = {
  screen: 'Screen large',
  camera: 'Camera large',
  alone: 'Screen without camera',
};

/** What comes in a moment is shown already: a class seldom begins with its first picture. */
const SOON_MS = 1000;

/** What is seen of one kind at a moment (ms): of several the one that began last. */
export const pictureAt = (
  pictures: readonly SeenPicture[],
  kind: SeenPicture['kind'],
  at: number,
): SeenPicture | null =>
  pictures.findLast((p) => p.kind === kind && p.at - SOON_MS <= at && at < p.at + p.length) ?? null;

/** What is large and what is beside it at a moment. */
export function seenAt(
  pictures: readonly SeenPicture[],
  view: View,
  at: number,
): { large: SeenPicture | null; beside: SeenPicture | null } {
  const screen = pictureAt(pictures, 'screen', at);
  const camera = pictureAt(pictures, 'camera', at);
  if (!screen || !camera) return { large: screen ?? camera, beside: null };
  if (view === 'alone') return { large: screen, beside: null };
  return view === 'screen' ? { large: screen, beside: camera } : { large: camera, beside: screen };
}
