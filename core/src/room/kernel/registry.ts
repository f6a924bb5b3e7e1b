import { bell } from '../bell/index';
import { board } from '../board/index';
import { captions } from '../captions/index';
import { desk } from '../desk/index';
import { door } from '../door/index';
import { film } from '../film/index';
import { floor } from '../floor/index';
import { limits } from '../limits/index';
import { pick } from '../pick/index';
import { presence } from '../presence/index';
import { questions } from '../questions/index';
import { recording } from '../recording/index';
import { runSheet } from '../runSheet/index';
import { signs } from '../signs/index';
import { slides } from '../slides/index';
import { stage } from '../stage/index';
import { tables } from '../tables/index';
import { talk } from '../talk/index';
import { timer } from '../timer/index';
import { withUs } from '../withUs/index';
import type { CommandRule, Concern, EventRule } from './concern';
import type { CommandType, EventType } from './messages';
import type { Parts, RoomState } from './state';

/** A concern as the kernel runs it, whatever its part of the state is. */
export type AnyConcern = Concern<keyof Parts, CommandType, EventType>;

/**
 * The concerns of a room, in the order in which they heed one another's events: who is there and what is allowed come
 * before what follows from it.
 */
const ALL = {
  ...{ bell, presence, limits, floor, desk, stage, talk, board, recording, door, runSheet, signs },
  ...{ timer, questions, pick, withUs, slides, tables, film, captions },
};

export const CONCERNS = Object.values(ALL) as unknown as readonly AnyConcern[];

/** Every command's rule. That none is missing, the type says. */
export const COMMANDS: { readonly [K in CommandType]: CommandRule<K> } = {
  ...bell.commands,
  ...presence.commands,
  ...limits.commands,
  ...floor.commands,
  ...desk.commands,
  ...stage.commands,
  ...talk.commands,
  ...board.commands,
  ...recording.commands,
  ...door.commands,
  ...runSheet.commands,
  ...signs.commands,
  ...timer.commands,
  ...questions.commands,
  ...pick.commands,
  ...slides.commands,
  ...tables.commands,
  ...film.commands,
  ...captions.commands,
};

/** Every event's rule. */
export const EVENTS: { readonly [K in EventType]: EventRule<never, K> } = {
  ...bell.events,
  ...presence.events,
  ...limits.events,
  ...floor.events,
  ...desk.events,
  ...stage.events,
  ...talk.events,
  ...board.events,
  ...recording.events,
  ...door.events,
  ...runSheet.events,
  ...signs.events,
  ...timer.events,
  ...questions.events,
  ...pick.events,
  ...slides.events,
  ...tables.events,
  ...film.events,
  ...captions.events,
} as never;

/** Which concern an event belongs to. */
export const OWNER = Object.fromEntries(
  CONCERNS.flatMap((c) => Object.keys(c.events).map((type) => [type, c.name])),
) as Record<EventType, keyof Parts>;

/** A room in which nothing has happened. */
export const newRoom = (): RoomState => ({
  seq: 0,
  notice: null,
  ...(Object.fromEntries(CONCERNS.map((c) => [c.name, c.empty])) as unknown as Parts),
});
