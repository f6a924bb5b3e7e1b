/** A face is known at this size, px. */
const LEAST = { width: 150, height: 96 };
const GAP = 6;
/**
 * Up to so wide a small picture does, px of the screen itself: a camera sends it 213 wide. Of many it is drawn half as large
 * again, where the large one would be nine times as much to receive of each.
 */
const SMALL_UP_TO = { few: 240, many: 320 };
const FEW = 9;
/** As a camera's picture is. */
const RATIO = 16 / 9;

export interface Tiles {
  columns: number;
  rows: number;
  /** How many faces of all there is room for. */
  shown: number;
  /** Whether each is so small that a small picture does. */
  small: boolean;
}

/** How so many faces fill a window: each as large as that goes, and no more of them than can be known. */
export function tilesFor(faces: number, width: number, height: number, density = 1): Tiles {
  const most = (of: number, least: number) => Math.max(1, Math.floor((of + GAP) / (least + GAP)));
  const [mostColumns, mostRows] = [most(width, LEAST.width), most(height, LEAST.height)];
  const shown = Math.max(1, Math.min(faces, mostColumns * mostRows));
  const smallUpTo = shown > FEW ? SMALL_UP_TO.many : SMALL_UP_TO.few;
  let best: Tiles = { columns: 1, rows: shown, shown, small: true };
  let largest = 0;
  for (let columns = 1; columns <= Math.min(shown, mostColumns); columns++) {
    const rows = Math.ceil(shown / columns);
    if (rows > mostRows) continue;
    const wide = Math.min(
      (width - GAP * (columns - 1)) / columns,
      ((height - GAP * (rows - 1)) / rows) * RATIO,
    );
    if (wide <= largest) continue;
    largest = wide;
    best = { columns, rows, shown, small: wide * density <= smallUpTo };
  }
  return best;
}
