import { useEffect, useRef } from 'react';

/** A picture track, shown. */
export function Picture({
  track,
  className,
  label,
}: {
  track: MediaStreamTrack;
  className?: string | undefined;
  label?: string;
}) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    const element = video.current;
    if (!element) return;
    element.srcObject = new MediaStream([track]);
    void element.play().catch(() => {});
    return () => {
      element.srcObject = null;
    };
  }, [track]);
  return <video ref={video} className={className} muted playsInline autoPlay aria-label={label} />;
}
