import type { Frame } from '@nimble-bell/core/room';
import type { At } from './pages';

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
