import { useEffect, useRef } from 'react';
import { pictureAt, type SeenPicture } from '../film/seen';
import { lengthWords } from '../words';
import classes from './time.module.css';

/** A moment is looked for so long after a pointer came to rest on it, ms. */
const REST_MS = 90;

interface GlimpseProps {
  /** ms */
  at: number;
  share: number;
  pictures: readonly SeenPicture[];
  chapter: string;
  /** What signs were given; empty where none were. */
  signs: string;
}

/** What was seen at a moment of the time line, and what it is called. */
export function Glimpse({ at, share, pictures, chapter, signs }: GlimpseProps) {
  const seen = pictureAt(pictures, 'screen', at) ?? pictureAt(pictures, 'camera', at);
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    const rest = setTimeout(() => {
      if (video.current && seen) video.current.currentTime = (at - seen.at) / 1000;
    }, REST_MS);
    return () => clearTimeout(rest);
  }, [at, seen]);
  return (
    <div className={classes.glimpse} style={{ left: `${100 * share}%` }} aria-hidden>
      {seen && <video key={seen.path} ref={video} src={seen.path} muted preload="metadata" />}
      <span className="figures">{lengthWords(at)}</span> {chapter}
      {signs && <div>{signs}</div>}
    </div>
  );
}
