import type { RecordingDetail } from '@nimble-bell/core/api';
import { together } from '@nimble-bell/core/recording';

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

/** The screens of a moment: one, or two where two presented side by side, whoever began first, first. */
function screensAt(pictures: readonly SeenPicture[], at: number): SeenPicture[] {
  const last = pictureAt(pictures, 'screen', at);
  if (!last) return [];
  const other = pictures.findLast(
    (p) => p !== last && together(p, last) && p.at <= at && at < p.at + p.length,
  );
  return other && last.at <= at ? [other, last] : [last];
}

/** What is large and what is beside it at a moment. */
export function seenAt(
  pictures: readonly SeenPicture[],
  view: View,
  at: number,
): { large: SeenPicture[]; beside: SeenPicture | null } {
  const screens = screensAt(pictures, at);
  const camera = pictureAt(pictures, 'camera', at);
  if (!screens.length || !camera)
    return { large: screens.length ? screens : camera ? [camera] : [], beside: null };
  if (view === 'alone') return { large: screens, beside: null };
  return view === 'screen'
    ? { large: screens, beside: camera }
    : { large: [camera], beside: screens.at(-1)! };
}
