import type { StoredEvent } from '../api/room';
import { changeWords } from '../limits/words';
import { teaches } from '../limits/resolve';
import { may, type Occupant, type RoomState } from './state';

/** The state after an event. Pure: the argument is left as it was. */
export function evolve(state: RoomState, event: StoredEvent): RoomState {
  const next = apply(state, event);
  const text = noticeOf(next, event);
  return { ...next, seq: event.seq, notice: text ? { seq: event.seq, text } : next.notice };
}

function apply(state: RoomState, event: StoredEvent): RoomState {
  switch (event.type) {
    case 'entered':
      return enter(state, event);
    case 'left':
      return leave(state, [event.member]);
    case 'interrupted':
      // The server was away, the room was not: everyone is where they were, and who does not return leaves later.
      return state;
    case 'rangIn':
      return { ...state, phase: 'live', rangInAt: event.at };
    case 'dismissed':
      return leave({ ...state, phase: 'dismissed', recording: 'off' }, Object.keys(state.occupants));
    case 'limitSet':
      return switchOffTheClosed({
        ...state,
        live: {
          values: { ...state.live.values, [event.capability]: event.state },
          by: event.by,
          at: event.at,
        },
      });
    case 'hushed':
      return { ...state, hush: { by: event.by, at: event.at } };
    case 'lifted':
      return { ...state, hush: null };
    case 'muted':
      return mapOccupants(state, (o) =>
        event.member === o.member || (event.member === null && !teaches(o.role))
          ? { ...o, microphone: false }
          : o,
      );
    case 'floorGiven':
      return { ...state, floor: event.member, hands: state.hands.filter((h) => h.member !== event.member) };
    case 'floorTaken':
      return switchOffTheClosed({ ...state, floor: null });
    case 'handRaised':
      return { ...state, hands: [...state.hands, { member: event.member, at: event.at }] };
    case 'handLowered':
      return { ...state, hands: state.hands.filter((h) => h.member !== event.member) };
    case 'microphone':
    case 'camera':
      return mapOccupants(state, (o) => (o.member === event.member ? { ...o, [event.type]: event.on } : o));
    case 'presenting':
      return { ...state, presenting: event.on ? event.member : null };
    case 'drawn':
      return { ...state, board: [...state.board, { ...event.stroke, seq: event.seq, by: event.by }] };
    case 'boardCleared':
      return { ...state, board: [] };
    case 'said': {
      const { seq, at, from, addressee, text } = event;
      const name = state.occupants[from]?.name ?? '';
      return { ...state, talk: [...state.talk, { seq, at, from, name, addressee, text }] };
    }
    case 'recordingStarted':
    case 'recordingResumed':
      return { ...state, recording: 'on' };
    case 'recordingPaused':
      return { ...state, recording: 'paused' };
  }
}

function enter(state: RoomState, event: Extract<StoredEvent, { type: 'entered' }>): RoomState {
  const { member, name, role, grants } = event;
  // Everyone walks in muted, with the camera off.
  const plain = { member, name, role, present: true, microphone: false, camera: false };
  const occupant: Occupant = grants ? { ...plain, grants } : plain;
  return { ...state, occupants: { ...state.occupants, [member]: occupant } };
}

function leave(state: RoomState, members: string[]): RoomState {
  const gone = new Set(members);
  return {
    ...mapOccupants(state, (o) =>
      gone.has(o.member) && o.present ? { ...o, present: false, microphone: false, camera: false } : o,
    ),
    hands: state.hands.filter((h) => !gone.has(h.member)),
    floor: state.floor && gone.has(state.floor) ? null : state.floor,
    presenting: state.presenting && gone.has(state.presenting) ? null : state.presenting,
  };
}

function mapOccupants(state: RoomState, change: (o: Occupant) => Occupant): RoomState {
  const occupants: Record<string, Occupant> = {};
  for (const [id, occupant] of Object.entries(state.occupants)) occupants[id] = change(occupant);
  return { ...state, occupants };
}

/**
 * A limit that closes, or a floor taken back, turns people's own switches off: opening again later must not open a
 * microphone behind its owner's back. Hush does not pass here, so lifting it brings back exactly what was before.
 */
function switchOffTheClosed(state: RoomState): RoomState {
  const allowed = (o: Occupant, what: 'speak' | 'camera' | 'present') => {
    const unhushed = state.hush ? { ...state, hush: null } : state;
    return may(unhushed, o.member, o.role, what).allowed;
  };
  const next = mapOccupants(state, (o) => {
    const microphone = o.microphone && allowed(o, 'speak');
    const camera = o.camera && allowed(o, 'camera');
    return microphone === o.microphone && camera === o.camera ? o : { ...o, microphone, camera };
  });
  const presenter = state.presenting ? state.occupants[state.presenting] : null;
  return presenter && !allowed(presenter, 'present') ? { ...next, presenting: null } : next;
}

function noticeOf(state: RoomState, event: StoredEvent): string | null {
  const name = (member: string) => state.occupants[member]?.name ?? 'A teacher';
  switch (event.type) {
    case 'rangIn':
      return `${name(event.by)} has rung in. Class begins.`;
    case 'limitSet':
      return changeWords(event.capability, event.state);
    case 'hushed':
      return `${name(event.by)} has hushed the room. Everything is closed for a moment.`;
    case 'lifted':
      return 'The hush is lifted. Everything is as it was before.';
    case 'muted':
      return event.member === null
        ? `${name(event.by)} has muted everyone.`
        : `${name(event.by)} has muted ${name(event.member)}.`;
    case 'floorGiven':
      return `${name(event.member)} has the floor.`;
    case 'floorTaken':
      return `${name(event.by)} has the floor again.`;
    case 'recordingStarted':
      return 'This class is being recorded.';
    case 'recordingPaused':
      return 'The recording is paused.';
    case 'recordingResumed':
      return 'The recording goes on.';
    case 'boardCleared':
      return 'The board has been cleared.';
    default:
      return null;
  }
}
