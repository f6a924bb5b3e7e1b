import { useRef, useState, type PointerEvent } from 'react';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { signsWords } from '@nimble-bell/core/room';
import type { SeenPicture } from '../film/seen';
import { lengthWords } from '../words';
import { Glimpse } from './Glimpse';
import { Strip } from './Strip';
import classes from './time.module.css';

interface TimeLineProps {
  recording: RecordingDetail;
  pictures: readonly SeenPicture[];
  position: number;
  goTo: (ms: number) => void;
}

const STEP_S = 5;

/**
 * Time, drawn as the run sheet of the class was: its chapters as lengths, and below them who could be heard, the floor,
 * signs, and writing. One goes to any moment of it; a pointer over it shows what was seen there.
 */
export function TimeLine({ recording, pictures, position, goTo }: TimeLineProps) {
  const { lengthMs, chapters } = recording;
  const [over, setOver] = useState<number | null>(null);
  const line = useRef<HTMLDivElement>(null);
  const chapterAt = (ms: number) => chapters.findLast((c) => c.position <= ms + 500)?.title ?? '';
  const signsAt = (ms: number) => {
    const then = recording.strip.signs.find((s) => s.from <= ms && ms < s.until);
    return then ? signsWords(then.given) : '';
  };
  const look = (e: PointerEvent) => {
    if (e.pointerType === 'touch') return;
    const { left, width } = line.current!.getBoundingClientRect();
    setOver(Math.max(0, Math.min(1, (e.clientX - left) / width)) * lengthMs);
  };
  return (
    <div className={classes.line} ref={line} onPointerMove={look} onPointerLeave={() => setOver(null)}>
      {over !== null && (
        <Glimpse
          at={over}
          share={over / Math.max(1, lengthMs)}
          pictures={pictures}
          chapter={chapterAt(over)}
          signs={signsAt(over)}
        />
      )}
      <Lengths recording={recording} position={position} />
      <Strip recording={recording} />
      <span
        className={classes.now}
        style={{ left: `${(100 * position) / Math.max(1, lengthMs)}%` }}
        aria-hidden
      />
      <input
        type="range"
        className={classes.range}
        aria-label="Where the recording is"
        aria-valuetext={`${lengthWords(position)} of ${lengthWords(lengthMs)}, ${chapterAt(position)}`}
        min={0}
        max={Math.max(1, Math.round(lengthMs / 1000))}
        step={STEP_S}
        value={Math.round(position / 1000)}
        onChange={(e) => goTo(Number(e.currentTarget.value) * 1000)}
        onClick={(e) => {
          // A press goes to the very moment, and not to the next step of the keys.
          const { left, width } = line.current!.getBoundingClientRect();
          if (e.detail > 0) goTo(((e.clientX - left) / width) * lengthMs);
        }}
      />
    </div>
  );
}

/** The chapters as lengths of time, named where there is room. */
function Lengths({
  recording: { chapters, lengthMs },
  position,
}: Pick<TimeLineProps, 'recording' | 'position'>) {
  const on = chapters.findLastIndex((c) => c.position <= position + 500);
  /** What is no wider than a hair is not drawn. */
  const least = lengthMs / 200;
  return (
    <div className={classes.lengths} aria-hidden>
      {chapters.map((c, i) => {
        const until = chapters[i + 1]?.position ?? lengthMs;
        if (until - c.position < least) return null;
        return (
          <span
            key={`${c.position} ${c.title}`}
            data-on={i === on}
            style={{ flexGrow: Math.max(1, until - c.position) }}
          >
            {c.title}
          </span>
        );
      })}
    </div>
  );
}
