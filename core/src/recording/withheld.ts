import {
  audience,
  audienceOf,
  CLASS,
  evolve,
  newRoom,
  ownerOf,
  sees,
  type RoomState,
  type StoredEvent,
  type StoredOf,
} from '../room/index';
import { tallyOf, type Answer, type Question } from '../questions/index';
import { teaches, type Role } from '../roster/role';
import { MARKED, PAGES_SHOWN, WORK_SHOWN } from './drawn';

/** Who does not agree to be in a recording: by the last that each said of it. */
export function withheldIn(events: readonly StoredEvent[]): Set<string> {
  const withheld = new Set<string>();
  for (const e of events)
    if (e.type === 'recordingAnswered') {
      if (e.agrees) withheld.delete(e.member);
      else withheld.add(e.member);
    }
  return withheld;
}

/** What stands in the place of a name, and of words. */
export const SOMEBODY = 'Somebody';
export const WITHHELD = '(withheld)';

const withoutWords = ({ file: _, ...e }: StoredOf<'said'>): StoredOf<'said'> => ({ ...e, text: WITHHELD });

type OfQuestions = 'asked' | 'answered' | 'askedAgain' | 'answersShown' | 'tallied';

/** What was asked, without what those who withheld answered: they are counted where nothing of theirs can be read. */
class Answers {
  readonly #asked = new Map<number, { question: Question; given: Map<string, Answer> }>();

  constructor(readonly withheld: ReadonlySet<string>) {}

  told(e: StoredOf<OfQuestions>): StoredEvent[] {
    if (e.type === 'asked') {
      this.#asked.set(e.seq, { question: e.question, given: new Map() });
      return [e];
    }
    const one = this.#asked.get(e.question);
    if (e.type === 'askedAgain') one?.given.clear();
    if (e.type === 'answered') {
      one?.given.set(e.member, e.answer);
      return this.withheld.has(e.member) ? [] : [e];
    }
    const isRead = one && ['words', 'number', 'point'].includes(one.question.kind);
    if (e.type === 'askedAgain' || !one || !isRead) return [e];
    const told = [...one.given].filter(([member]) => !this.withheld.has(member)).map(([, a]) => a);
    return [{ ...e, tally: { ...tallyOf(one.question, told), answered: e.tally.answered } }];
  }
}

/** What happened, as a recording may tell it: those who withheld are nobody, and what they wrote is not told. */
export function maskedFor(events: readonly StoredEvent[], withheld: ReadonlySet<string>): StoredEvent[] {
  if (!withheld.size) return [...events];
  const answers = new Answers(withheld);
  return events.flatMap((e): StoredEvent[] => {
    switch (e.type) {
      case 'recordingAnswered':
        return [];
      case 'entered':
      case 'known': {
        if (!withheld.has(e.member)) return [e];
        const { pronouns: _theirs, ...rest } = e;
        return [{ ...rest, name: SOMEBODY }];
      }
      case 'renamed':
      case 'knocked':
        return [withheld.has(e.member) ? { ...e, name: SOMEBODY } : e];
      case 'said':
        return [withheld.has(e.from) ? withoutWords(e) : e];
      case 'captioned':
        return [e.heard && withheld.has(e.by) ? { ...e, text: WITHHELD } : e];
      case 'textPut':
        return [withheld.has(e.by) ? { ...e, text: { ...e.text, text: WITHHELD } } : e];
      case 'workShown': {
        const own = ownerOf(e.from);
        // Somebody's own board would show what they withhold, and say whose it is.
        if (own !== null && withheld.has(own)) return [];
        const marks = e.marks.flatMap((m) => {
          if (!withheld.has(m.by)) return [m];
          return m.kind === 'text' ? [{ ...m, text: WITHHELD }] : [];
        });
        return [{ ...e, marks }];
      }
      case 'drawn':
      case 'shapePut':
      case 'picturePut':
      case 'slideMarked':
        return withheld.has(e.by) ? [] : [e];
      case 'asked':
      case 'answered':
      case 'askedAgain':
      case 'answersShown':
      case 'tallied':
        return answers.told(e);
      default:
        return [e];
    }
  });
}

/** Who watches. */
export interface Watcher {
  member: string;
  role: Role;
}
/** Any of the class: what all of them may have. */
export const ANYBODY: Watcher = { member: '', role: 'student' };

/** What of a class anybody may have: who taught, what was on the stage, and when somebody could be heard. */
const OPEN_TO_ALL: ReadonlySet<StoredEvent['type']> = new Set([
  ...(['entered', 'left', 'rangIn', 'dismissed', 'cued', 'presenting'] as const),
  ...(['microphone', 'floorGiven', 'floorTaken'] as const),
  ...MARKED,
  ...WORK_SHOWN,
  ...PAGES_SHOWN,
  ...(['recordingStarted', 'recordingPaused', 'recordingResumed'] as const),
]);

/**
 * What happened, as anybody may have it who has a link: what those who teach showed and did. Of students no name, and
 * nothing that was written, by anyone.
 */
export function forAnybody(events: readonly StoredEvent[]): StoredEvent[] {
  const students = new Set(
    events.flatMap((e) =>
      (e.type === 'entered' || e.type === 'knocked') && !teaches(e.role) ? [e.member] : [],
    ),
  );
  return heardBy(maskedFor(events, new Set([...students, ...withheldIn(events)])), ANYBODY).filter((e) =>
    OPEN_TO_ALL.has(e.type),
  );
}

/** Whether it happened at a table, or on a board of somebody's own. */
const isApart = (e: StoredEvent, room: RoomState): boolean => {
  if ('place' in e && e.place !== undefined && ownerOf(e.place) !== null) return true;
  const heard = audienceOf(e, room);
  return heard.to === 'place' && heard.place !== CLASS;
};

/**
 * What happened, as this person may have it afterwards: what was not for them in class is not for them now; and where the
 * others' names were hidden from them at any time while it was on, they are in all of it.
 */
export function heardBy(events: readonly StoredEvent[], watcher: Watcher): StoredEvent[] {
  let room = newRoom();
  let hiding: RoomState['limits'] | null = null;
  for (const e of events) {
    room = evolve(room, e);
    if (room.bell.phase === 'live' && !sees(room, watcher, 'seeNames')) hiding = room.limits;
  }
  const end = hiding ? { ...room, limits: hiding } : room;
  // What was said and drawn apart was never the class's, and is in no recording of it.
  return events.flatMap((e) => (isApart(e, end) ? [] : (audience(e, watcher, end) ?? [])));
}
