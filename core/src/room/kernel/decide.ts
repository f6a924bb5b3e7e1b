import { teaches } from '../../roster/role';
import { may } from '../may';
import { isHere } from '../presence/index';
import { refusalWords } from '../words';
import type { Actor, CommandRule, Due } from './concern';
import type { CommandType, RoomCommand, RoomEvent } from './messages';
import { refuse, type Refusal } from './refusals';
import { COMMANDS, CONCERNS } from './registry';
import type { RoomState } from './state';

export type Decision = { ok: true; events: RoomEvent[] } | { ok: false; refusal: Refusal };

/**
 * What a command leads to: the events to store and send, or a refusal in words. Pure; no event is an answer too
 * ("muted already").
 */
export function decide(room: RoomState, actor: Actor, command: RoomCommand, now: number): Decision {
  const refused = refusedBefore(room, actor, command);
  if (refused) return { ok: false, refusal: refused };
  const rule = COMMANDS[command.type] as CommandRule<CommandType>;
  const outcome = rule.decide(room, actor, command, now);
  return Array.isArray(outcome) ? { ok: true, events: outcome } : { ok: false, refusal: outcome };
}

/** What every command has in common: who gives it, when in the class, and what it needs. */
function refusedBefore(room: RoomState, actor: Actor, command: RoomCommand): Refusal | null {
  const rule = COMMANDS[command.type] as CommandRule<CommandType> | undefined;
  if (!rule) return refuse('unknown');
  if (!isHere(room, actor.member)) return refuse('absent');
  if (room.bell.phase === 'dismissed') return refuse('dismissed');
  if (rule.who === 'teaching' && !teaches(actor.role)) return refuse('teachers-only');
  if (rule.phase === 'live' && room.bell.phase !== 'live') return refuse('not-live');
  const closed = rule.needs?.(command, room, actor).find((c) => !may(room, actor, c).allowed);
  if (closed) return refuse('closed', refusalWords(room, actor, closed));
  return null;
}

/** What is to happen next by itself, and when; of several the first. */
export function nextDue(room: RoomState): Due | null {
  let first: Due | null = null;
  for (const { due } of CONCERNS) {
    const one = due?.(room);
    if (one && (!first || one.at < first.at)) first = one;
  }
  return first;
}

/** What is due by now. */
export function dueBy(room: RoomState, now: number): RoomEvent[] {
  const due = nextDue(room);
  return due && due.at <= now ? due.events : [];
}
