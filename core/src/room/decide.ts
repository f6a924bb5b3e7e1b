import type { Capability, Role } from '../api/limits';
import type { Refusal, RoomCommand, RoomCommandType, RoomEvent } from '../api/room';
import { CAPABILITY_WORDS } from '../limits/words';
import { teaches } from '../limits/resolve';
import { may, type RoomState } from './state';

export interface Actor {
  member: string;
  role: Role;
}

export type Decision = { ok: true; events: RoomEvent[] } | { ok: false; refusal: Refusal };

/** Commands that only those who teach may give. The authorisation test reads this table. */
export const TEACHING_COMMANDS: ReadonlySet<RoomCommandType> = new Set<RoomCommandType>([
  'ringIn',
  'dismiss',
  'setLimit',
  'hush',
  'lift',
  'mute',
  'muteAll',
  'giveFloor',
  'takeFloor',
  'clearBoard',
  'pauseRecording',
  'resumeRecording',
]);

const done = (...events: RoomEvent[]): Decision => ({ ok: true, events });
const refuse = (code: string, message: string): Decision => ({ ok: false, refusal: { code, message } });

/**
 * What a command leads to: the events to store and send, or a refusal in words. Pure; no event is an answer too
 * ("muted already").
 */
export function decide(state: RoomState, actor: Actor, command: RoomCommand): Decision {
  if (!state.occupants[actor.member]?.present) return refuse('absent', 'You are not in the room.');
  if (state.phase === 'dismissed') return refuse('dismissed', 'The class has been dismissed.');
  if (TEACHING_COMMANDS.has(command.type)) {
    if (!teaches(actor.role)) return refuse('teachers-only', 'Only a teacher can do this.');
    return decideTeaching(state, actor, command);
  }
  return decideOwn(state, actor, command);
}

function decideTeaching(state: RoomState, actor: Actor, command: RoomCommand): Decision {
  const by = actor.member;
  if (command.type === 'ringIn') return state.phase === 'live' ? done() : done({ type: 'rangIn', by });
  if (state.phase !== 'live') return refuse('not-live', 'Ring in first.');
  switch (command.type) {
    case 'dismiss':
      return done({ type: 'dismissed', by });
    case 'setLimit':
      if (state.hush)
        return refuse('hushed', 'The room is hushed. Lift the hush first: it brings back what was before.');
      return done({ type: 'limitSet', by, capability: command.capability, state: command.state });
    case 'hush':
      return state.hush ? done() : done({ type: 'hushed', by });
    case 'lift':
      return state.hush ? done({ type: 'lifted', by }) : done();
    case 'mute': {
      const person = state.occupants[command.member];
      if (!person?.present) return refuse('not-here', 'This person is not in the room.');
      return person.microphone ? done({ type: 'muted', by, member: command.member }) : done();
    }
    case 'muteAll':
      return done({ type: 'muted', by, member: null });
    case 'giveFloor':
      return giveFloor(state, by, command.member);
    case 'takeFloor':
      return state.floor ? done({ type: 'floorTaken', by, member: state.floor }) : done();
    case 'clearBoard':
      return done({ type: 'boardCleared', by });
    case 'pauseRecording':
      return state.recording === 'on'
        ? done({ type: 'recordingPaused', by })
        : refuse('not-recording', 'Nothing is being recorded.');
    case 'resumeRecording':
      return state.recording === 'paused' ? done({ type: 'recordingResumed', by }) : done();
    default:
      return refuse('unknown', 'This command is not known.');
  }
}

function giveFloor(state: RoomState, by: string, member: string): Decision {
  const person = state.occupants[member];
  if (!person?.present) return refuse('not-here', 'This person is not in the room.');
  if (teaches(person.role)) return refuse('teaches', 'Teachers speak without being given the floor.');
  if (state.hush) return refuse('hushed', 'The room is hushed. Lift the hush first.');
  if (state.floor === member) return done();
  const events: RoomEvent[] = [{ type: 'floorGiven', by, member }];
  if (state.floor) events.unshift({ type: 'floorTaken', by, member: state.floor });
  return { ok: true, events };
}

function decideOwn(state: RoomState, actor: Actor, command: RoomCommand): Decision {
  const { member } = actor;
  const need = (capability: Capability): Decision | null => {
    const verdict = may(state, member, actor.role, capability);
    return verdict.allowed ? null : refuse('closed', refusalWords(state, actor, capability));
  };
  switch (command.type) {
    case 'raiseHand':
      if (state.hush) return refuse('hushed', 'The room is hushed for a moment.');
      if (state.hands.some((h) => h.member === member)) return done();
      return done({ type: 'handRaised', member });
    case 'lowerHand':
      if (command.member !== member && !teaches(actor.role))
        return refuse('teachers-only', 'Only a teacher can do this.');
      if (!state.hands.some((h) => h.member === command.member)) return done();
      return done({ type: 'handLowered', by: member, member: command.member });
    case 'microphone':
      return (command.on && need('speak')) || done({ type: 'microphone', member, on: command.on });
    case 'camera':
      return (command.on && need('camera')) || done({ type: 'camera', member, on: command.on });
    case 'present':
      return decidePresent(state, actor, command.on, need('present'));
    case 'say':
      return decideSay(state, actor, command, need);
    case 'draw':
      return need('draw') ?? done({ type: 'drawn', by: member, stroke: command.stroke });
    default:
      return refuse('unknown', 'This command is not known.');
  }
}

function decidePresent(state: RoomState, actor: Actor, on: boolean, closed: Decision | null): Decision {
  const { member } = actor;
  if (!on) return state.presenting === member ? done({ type: 'presenting', member, on: false }) : done();
  if (closed) return closed;
  const other = state.presenting;
  if (other && other !== member && !teaches(actor.role)) {
    const name = state.occupants[other]?.name ?? 'Somebody';
    return refuse('taken', `${name} is presenting. You can present when they stop.`);
  }
  return done({ type: 'presenting', member, on: true });
}

function decideSay(
  state: RoomState,
  actor: Actor,
  command: Extract<RoomCommand, { type: 'say' }>,
  need: (capability: Capability) => Decision | null,
): Decision {
  const { addressee } = command;
  let capability: Capability = addressee.to === 'class' ? 'writeToClass' : 'writeToTeachers';
  if (addressee.to === 'member') {
    const other = state.occupants[addressee.member];
    if (!other) return refuse('not-here', 'This person has not been in the room.');
    if (addressee.member === actor.member) return refuse('self', 'This would only reach yourself.');
    if (!teaches(other.role)) capability = 'writeToStudents';
  }
  return need(capability) ?? done({ type: 'said', from: actor.member, addressee, text: command.text });
}

/** What is closed, by whom, and what one can do instead. */
export function refusalWords(state: RoomState, actor: Actor, capability: Capability): string {
  const { doing } = CAPABILITY_WORDS[capability];
  const verb = capability === 'camera' ? 'are' : 'is';
  const verdict = may(state, actor.member, actor.role, capability);
  const { name, by } = verdict.because;
  const who = by ? (state.occupants[by]?.name ?? by) : null;
  if (name === 'hush') return `${who ?? 'A teacher'} has hushed the room. It is lifted in a moment.`;
  if (actor.role === 'observer') return 'Observers watch and listen.';
  if (verdict.state === 'byHand')
    return `${doing} ${verb} by hand. Raise your hand and wait to be given the floor.`;
  const where = name === 'live' ? 'just now' : name === 'college' ? 'at this college' : `for this ${name}`;
  const closed = `${doing} ${verb} closed ${where}${who ? ` by ${who}` : ''}.`;
  return may(state, actor.member, actor.role, 'writeToTeachers').allowed && capability !== 'writeToTeachers'
    ? `${closed} You can raise your hand or write to a teacher.`
    : `${closed} You can raise your hand.`;
}
