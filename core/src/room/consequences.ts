import type { StoredEvent } from './kernel/messages';
import { evolve } from './kernel/evolve';
import { CLASS } from './kernel/place';
import type { Place } from './kernel/schema';
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
  /** Whatever parts of the recording are open end. */
  | { do: 'closeParts'; at: number }
  /** The recording goes on in each of these places. */
  | { do: 'openParts'; at: number; places: readonly Place[] }
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
  const { laid } = before.tables;
  let places = laid?.recorded ? laid.tables.map((t) => t.place) : [CLASS];
  const close = (at: number): Consequence => ({ do: 'closeParts', at });
  const open = (at: number): Consequence[] => (state === 'on' ? [{ do: 'openParts', at, places }] : []);
  return events.flatMap((event): Consequence[] => {
    const { at } = event;
    switch (event.type) {
      case 'rangIn':
        return [{ do: 'beginSession' }];
      case 'recordingStarted':
      case 'recordingResumed':
        state = 'on';
        return [close(at), ...open(at)];
      case 'recordingPaused':
        state = 'paused';
        return [close(at)];
      case 'tablesLaid':
        if (!event.recorded) return [];
        places = event.tables.map((t) => t.place);
        return [close(at), ...open(at)];
      case 'tablesCleared':
        if (places[0] === CLASS) return [];
        places = [CLASS];
        return [close(at), ...open(at)];
      case 'interrupted':
        return [close(event.from), ...open(at)];
      case 'dismissed':
        state = 'off';
        return [close(at), ...keptSegments(before, events), { do: 'endSession' }, { do: 'prepareRecording' }];
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
