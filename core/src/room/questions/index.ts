import { countWords } from '../../calendar/words';
import { fits, tallyOf, type Answer, type Picture, type Tally } from '../../questions/index';
import { teaches } from '../../roster/role';
import { sideOf } from '../board/index';
import { concern, EVERYONE, type Actor } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { CLASS } from '../kernel/place';
import { refuse } from '../kernel/refusals';
import type { RoomState } from '../kernel/state';
import { slidesAt } from '../slides/index';
import { frontOf } from '../stage/index';
import type { AskedQuestion, QuestionsState, Round } from './state';

/** Those who have answered are told of the others so often, ms. */
const TOLD_EVERY_MS = 2000;

type Questions = Pick<RoomState, 'questions'>;

export const roundOf = (asked: AskedQuestion): Round => asked.rounds.at(-1)!;

/** The question that everybody looks at. */
export const questionOn = ({ questions: { asked, on } }: Questions): AskedQuestion | null =>
  on === null ? null : (asked.find((q) => q.id === on) ?? null);

export const isOpen = (asked: AskedQuestion): boolean => roundOf(asked).closedAt === null;

/** Whether somebody of this role is asked. */
export const isAsked = ({ role }: Pick<Actor, 'role'>): boolean => role === 'student' || role === 'guest';

const given = (round: Round): Answer[] => Object.values(round.answers).map((g) => g.answer);
const tally = ({ question, rounds }: AskedQuestion): Tally => tallyOf(question, given(rounds.at(-1)!));

const beginning = (at: number, seconds: number | null): Round => ({
  from: at,
  until: seconds === null ? null : at + seconds * 1000,
  closedAt: null,
  answers: {},
  tally: null,
  toldAt: null,
  shown: false,
});

/** The part with one question otherwise. */
const withOne = (
  part: QuestionsState,
  id: number,
  change: (asked: AskedQuestion) => AskedQuestion,
): QuestionsState => ({ ...part, asked: part.asked.map((q) => (q.id === id ? change(q) : q)) });

/** The part with the last round of one question otherwise. */
const withRound = (part: QuestionsState, id: number, change: (round: Round) => Partial<Round>) =>
  withOne(part, id, (q) => ({
    ...q,
    rounds: q.rounds.map((r, i) => (i === q.rounds.length - 1 ? { ...r, ...change(r) } : r)),
  }));

/** Nobody answers any more what is on. */
function closing(room: Questions, by: string | null): RoomEvent[] {
  const on = questionOn(room);
  return on && isOpen(on) ? [{ type: 'answersClosed', by, question: on.id }] : [];
}

/** The number that an anonymous answer is known by to those who teach: nobody's, and the same when it is given again. */
function numberFor({ questions: { asked } }: Questions, question: number, member: string): string {
  const rounds = asked.find((q) => q.id === question)?.rounds ?? [];
  return `#${rounds.findLast((r) => r.answers[member])?.answers[member]?.first ?? 0}`;
}

export const isAnonymous = ({ questions: { asked } }: Questions, question: number): boolean =>
  asked.find((q) => q.id === question)?.question.anonymous ?? true;

/** The answers of a round as those who teach may have them. */
const unnamed = (round: Round): Round => ({
  ...round,
  answers: Object.fromEntries(Object.values(round.answers).map((g) => [`#${g.first}`, g])),
});

function seenBy(part: QuestionsState, viewer: Actor): QuestionsState {
  const teaching = teaches(viewer.role);
  return {
    ...part,
    asked: part.asked.map((q) => ({
      ...q,
      question: teaching || q.rightShown ? q.question : { ...q.question, right: null },
      rounds: q.rounds.map((round) => {
        if (teaching) return q.question.anonymous ? unnamed(round) : round;
        const own = round.answers[viewer.member];
        return {
          ...round,
          answers: own ? { [viewer.member]: own } : {},
          tally: round.shown || own ? round.tally : null,
          toldAt: own ? round.toldAt : null,
        };
      }),
    })),
  };
}

/** What the class has before it that can be pointed at: a page, or the board; null where that is something else. */
function pictureBefore(room: Pick<RoomState, 'stage' | 'slides' | 'board'>): Picture | null {
  const front = frontOf(room, CLASS);
  const on = slidesAt(room, CLASS);
  if (front === 'slides' && on) return { of: 'page', deck: on.deck, page: on.page };
  return front === 'board' ? { of: 'board', side: sideOf(room.board, CLASS) } : null;
}

const asText = (text: string) => (text ? `: ${text}` : ' what was said aloud');

/** What the class is asked, and what each answers. */
export const questions = concern({
  name: 'questions',
  empty: { asked: [], on: null },
  commands: {
    ask: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { question: wanted, seconds = null, live = false, prepared }) => {
        const picture = wanted.kind === 'point' ? pictureBefore(room) : null;
        if (wanted.kind === 'point' && !picture) return refuse('no-picture');
        const question = picture ? { ...wanted, picture } : wanted;
        return [
          ...closing(room, by),
          { type: 'asked', by, question, seconds, live, ...(prepared ? { prepared } : {}) },
        ];
      },
    },
    answer: {
      who: 'anyone',
      phase: 'live',
      decide: (room, actor, { question, answer }) => {
        const on = questionOn(room);
        if (!isAsked(actor)) return refuse('not-asked');
        if (!on || on.id !== question || !isOpen(on)) return refuse('too-late');
        if (!fits(on.question, answer)) return refuse('no-answer');
        const before = roundOf(on).answers[actor.member];
        if (JSON.stringify(before?.answer) === JSON.stringify(answer)) return [];
        return [{ type: 'answered', member: actor.member, question, answer }];
      },
    },
    closeAnswers: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }) => closing(room, by),
    },
    showAnswers: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { right }) => {
        const on = questionOn(room);
        if (!on) return refuse('nothing-asked');
        return [
          ...closing(room, by),
          {
            type: 'answersShown',
            by,
            question: on.id,
            tally: tally(on),
            right: right ? on.question.right : null,
          },
        ];
      },
    },
    askAgain: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { seconds = null }) => {
        const on = questionOn(room);
        if (!on) return refuse('nothing-asked');
        return isOpen(on) ? [] : [{ type: 'askedAgain', by, question: on.id, seconds }];
      },
    },
    putAway: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }) => {
        const on = questionOn(room);
        return on ? [...closing(room, by), { type: 'questionPutAway', by, question: on.id }] : [];
      },
    },
  },
  events: {
    asked: {
      version: 1,
      hears: () => EVERYONE,
      told: (event, _room, teaching) =>
        teaching || event.question.right === null
          ? event
          : { ...event, question: { ...event.question, right: null } },
      evolve: ({ asked }, { seq, at, by, question, seconds, live }) => ({
        on: seq,
        asked: [
          ...asked,
          { id: seq, by, at, question, live, rightShown: false, rounds: [beginning(at, seconds)] },
        ],
      }),
      notice: ({ question: { text } }) => `You are asked${asText(text)}`,
      chapter: ({ question: { text } }) => (text ? `Asked: ${text}`.slice(0, 120) : null),
      log: ({ by, question: { text } }, nameOf) => `${nameOf(by)} asked the class${asText(text)}`,
    },
    answered: {
      version: 1,
      hears: ({ member }) => ({ to: 'some', members: [member] }),
      told: (event, room, teaching) =>
        teaching && isAnonymous(room, event.question)
          ? { ...event, member: numberFor(room, event.question, event.member) }
          : event,
      evolve: (part, { member, question, answer, at, seq }) =>
        withRound(part, question, ({ answers }) => ({
          answers: { ...answers, [member]: { answer, at, first: answers[member]?.first ?? seq } },
        })),
      log: null,
    },
    tallied: {
      version: 1,
      hears: ({ question }, { questions: { asked } }) => {
        const one = asked.find((q) => q.id === question);
        return { to: 'some', members: one ? Object.keys(roundOf(one).answers) : [] };
      },
      evolve: (part, { question, tally: so, at }) =>
        withRound(part, question, () => ({ tally: so, toldAt: at })),
      log: null,
    },
    answersClosed: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { question, at }) => withRound(part, question, () => ({ closedAt: at })),
      notice: ({ by }) => (by ? null : 'The time to answer is over.'),
      log: ({ by }, nameOf) => (by ? `${nameOf(by)} closed the answers.` : 'The time to answer was over.'),
    },
    answersShown: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { question, tally: all, right }) =>
        withOne(
          withRound(part, question, () => ({ tally: all, shown: true })),
          question,
          (q) => (right === null ? q : { ...q, rightShown: true, question: { ...q.question, right } }),
        ),
      log: ({ by, tally: { answered }, right }, nameOf) =>
        `${nameOf(by)} showed ${countWords(answered, 'answer')}${right === null ? '' : ', and the right one'}.`,
    },
    askedAgain: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { question, seconds, at }) =>
        withOne(part, question, (q) => ({ ...q, rounds: [...q.rounds, beginning(at, seconds)] })),
      notice: () => 'You are asked again.',
      log: ({ by }, nameOf) => `${nameOf(by)} asked it again.`,
    },
    questionPutAway: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, on: null }),
      log: ({ by }, nameOf) => `${nameOf(by)} put the question away.`,
    },
  },
  heeds: { dismissed: (part) => ({ ...part, on: null }) },
  due: (room) => {
    const on = questionOn(room);
    if (!on || !isOpen(on)) return null;
    const { until } = roundOf(on);
    const over = until === null ? null : { at: until, events: closing(room, null) };
    const told = on.live ? nextTally(on) : null;
    return told && (!over || told.at < over.at) ? told : over;
  },
  seenBy,
});

/** When those who have answered are told again: once something new was answered, not too often. */
function nextTally(asked: AskedQuestion) {
  const { answers, tally: last, toldAt } = roundOf(asked);
  const next = tally(asked);
  if (!next.answered || JSON.stringify(next) === JSON.stringify(last)) return null;
  // From the last time, however many answer meanwhile; the first time from the first answer.
  const since = toldAt ?? Math.min(...Object.values(answers).map((g) => g.at));
  return {
    at: since + TOLD_EVERY_MS,
    events: [{ type: 'tallied' as const, question: asked.id, tally: next }],
  };
}
