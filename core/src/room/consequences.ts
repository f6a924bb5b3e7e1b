import type { StoredEvent } from './kernel/messages';
import { evolve } from './kernel/evolve';
import type { RoomState } from './kernel/state';
import type { HeldSegment } from './runSheet/state';

/**
 * What must be stored together with events, in their transaction: nothing of it may hang on the process staying alive.
 * Instants in ms.
 */
export type Consequence =
  | { do: 'beginSession' }
  /** The session is held; its roll is written, and a room without dates stands ready again. */
  | { do: 'endSession' }
  /** Whatever part of the recording is open ends. */
  | { do: 'closePart'; at: number }
  | { do: 'openPart'; at: number }
  /** The recording, if there is one, is prepared. */
  | { do: 'prepareRecording' }
  /** How long each segment of the run sheet took is kept beside its plan. */
  | { do: 'keepSegments'; held: readonly HeldSegment[] }
  /** What somebody is called in this course. */
  | { do: 'rename'; member: string; name: string; by: string }
  /** These are let in from now on without knocking. */
  | { do: 'alwaysIn'; members: readonly string[] };

/** In order; `before` is the room before these events. */
export function consequencesOf(before: RoomState, events: readonly StoredEvent[]): Consequence[] {
  let { state } = before.recording;
  return events.flatMap((event): Consequence[] => {
    switch (event.type) {
      case 'rangIn':
        return [{ do: 'beginSession' }];
      case 'recordingStarted':
      case 'recordingResumed':
        state = 'on';
        return [
          { do: 'closePart', at: event.at },
          { do: 'openPart', at: event.at },
        ];
      case 'recordingPaused':
        state = 'paused';
        return [{ do: 'closePart', at: event.at }];
      case 'interrupted':
        return [
          { do: 'closePart', at: event.from },
          ...(state === 'on' ? [{ do: 'openPart' as const, at: event.at }] : []),
        ];
      case 'dismissed':
        state = 'off';
        return [
          { do: 'closePart', at: event.at },
          ...keptSegments(before, events),
          { do: 'endSession' },
          { do: 'prepareRecording' },
        ];
      case 'renamed':
        return [{ do: 'rename', member: event.member, name: event.name, by: event.by }];
      case 'admitted':
        return event.always ? [{ do: 'alwaysIn', members: event.members }] : [];
      default:
        return [];
    }
  });
}

function keptSegments(before: RoomState, events: readonly StoredEvent[]): Consequence[] {
  const { held } = events.reduce(evolve, before).runSheet;
  return held.length ? [{ do: 'keepSegments', held }] : [];
}
