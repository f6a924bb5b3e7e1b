/** So many pixels a side has a picture on a board at most. */
export const LARGEST_SIDE = 1600;
/** So long is a picture as text (base64) at most, characters: everybody in the place has it. */
export const MOST_LETTERS = 120_000;

/** Markers of a JPEG's frame (ITU-T T.81, table B.1), which say how large it is; not those of tables between them. */
const isFrame = (marker: number) => marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);

/** How large a JPEG is that is written as base64, in pixels; null where it is none. */
export function jpegSize(base64: string): { width: number; height: number } | null {
  let bytes: string;
  try {
    bytes = atob(base64);
  } catch {
    return null;
  }
  const at = (i: number) => bytes.charCodeAt(i);
  const two = (i: number) => at(i) * 256 + at(i + 1);
  if (two(0) !== 0xffd8) return null;
  for (let i = 2; i + 9 < bytes.length && at(i) === 0xff; i += 2 + two(i + 2)) {
    // Fill bytes may stand before a marker.
    while (at(i + 1) === 0xff) i++;
    if (isFrame(at(i + 1))) return { height: two(i + 5), width: two(i + 7) };
  }
  return null;
}

/** Whether it is a picture that may stand on a board: what it is, not what it is called. */
export function isPicture(base64: string): boolean {
  const size = jpegSize(base64);
  return size !== null && [size.width, size.height].every((n) => n >= 1 && n <= LARGEST_SIDE);
}
