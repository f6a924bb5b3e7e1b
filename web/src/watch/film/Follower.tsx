import { useEffect, useRef } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { useFailed } from './useFailed';
import type { Film } from './useMedia';

/** So far a picture may be beside the sound, s: less is caught up by pace, more by going there. */
const NEAR_S = 0.03;
const FAR_S = 0.4;
const LOOK_MS = 200;

interface FollowerProps {
  picture: RecordingDetail['pictures'][number];
  film: Film;
  className?: string | undefined;
  label: string;
  /** It cannot be had at its address any more. */
  failed: () => void;
}

/** A picture that follows the film's sound: it plays, stands and goes where that does. */
export function Follower({ picture, film, className, label, failed }: FollowerProps) {
  const element = useRef<HTMLVideoElement>(null);
  useFailed(element, failed);
  useEffect(() => {
    const follow = () => {
      const video = element.current;
      if (!video || video.readyState < HTMLMediaElement.HAVE_METADATA) return;
      const wanted = Math.max(0, (film.now() - picture.at) / 1000);
      const beside = video.currentTime - wanted;
      if (film.paused() !== video.paused) void (film.paused() ? video.pause() : video.play().catch(() => {}));
      if (Math.abs(beside) > FAR_S || (film.paused() && Math.abs(beside) > NEAR_S)) {
        if (!video.seeking) video.currentTime = wanted;
        video.playbackRate = film.pace();
      } else {
        const hurry = Math.abs(beside) > NEAR_S ? 1 - Math.max(-0.2, Math.min(0.2, beside)) : 1;
        video.playbackRate = film.pace() * hurry;
      }
    };
    const timer = setInterval(follow, LOOK_MS);
    const video = element.current;
    video?.addEventListener('loadedmetadata', follow);
    return () => {
      clearInterval(timer);
      video?.removeEventListener('loadedmetadata', follow);
    };
  }, [film, picture.at]);
  return (
    <video
      ref={element}
      className={className}
      src={picture.path}
      muted
      playsInline
      preload="auto"
      aria-label={label}
      data-kind={picture.kind}
      onError={failed}
    />
  );
}
