import type { Frame } from '../room/index';

/** Where a page stands in a window, in its pixels: so wide, its corner so far from the window's own. */
export interface At {
  width: number;
  left: number;
  top: number;
}

/** Where a page of this shape stands in a window of this size: as much of it as the frame says, as near as it can be. */
export function framed(ratio: number, frame: Frame, window: { width: number; height: number }): At {
  const whole = Math.min(window.width, window.height / ratio);
  const width = (frame.fit === 'width' ? window.width : whole) * frame.zoom;
  // What is smaller than the window is in its middle; what is larger is moved, never past its edge.
  const along = (size: number, room: number, centre: number) =>
    size <= room ? (room - size) / 2 : Math.min(0, Math.max(room - size, room / 2 - centre * size));
  return {
    width,
    left: along(width, window.width, frame.x),
    top: along(width * ratio, window.height, frame.y),
  };
}
