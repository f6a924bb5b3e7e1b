/** Within this nobody sees or hears that two are apart, s. */
const TOGETHER_S = 0.08;
/** What is further apart than this is put there; what is less is run a little faster or slower until it is together. */
const FAR_S = 1;

export interface Playing {
  paused: boolean;
  currentTime: number;
  duration: number;
  playbackRate: number;
  seeking: boolean;
  play: () => Promise<void>;
  pause: () => void;
}

interface How {
  /** It was set there just now. */
  jumped: boolean;
  /** How fast it is to run; 1 is as it was made. */
  pace?: number;
  /** It may not play. */
  refused?: (error: DOMException) => void;
}

/** Brings a media element to where the class is, s. */
export function bring(
  element: Playing,
  to: number,
  playing: boolean,
  { jumped, pace = 1, refused = () => {} }: How,
): void {
  const end = Number.isFinite(element.duration) ? element.duration : Infinity;
  const wanted = Math.min(to, end);
  const apart = wanted - element.currentTime;
  const ended = wanted >= end;
  if (
    !element.seeking &&
    (Math.abs(apart) > FAR_S || ((jumped || !playing) && Math.abs(apart) > TOGETHER_S / 2))
  )
    element.currentTime = wanted;
  element.playbackRate =
    pace *
    (playing && Math.abs(apart) > TOGETHER_S && Math.abs(apart) <= FAR_S ? (apart > 0 ? 1.1 : 0.9) : 1);
  if (playing && !ended && element.paused) element.play().catch(refused);
  if ((!playing || ended) && !element.paused) element.pause();
}
