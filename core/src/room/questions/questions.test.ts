import type { Question } from '../../questions/index';
import { maskedFor, heardBy } from '../../recording/withheld';
import { ana, ben, lecture, maren } from '../../testing/index';
import { audience, snapshotFor } from '../kernel/audience';
import { dueBy, nextDue } from '../kernel/decide';
import { evolve } from '../kernel/evolve';
import type { RoomState } from '../kernel/state';
import { questionOn, roundOf } from './index';

const question = (more: Partial<Question> = {}): Question => ({
  ...{ text: 'Which way does it set?', kind: 'one', options: ['Ebb', 'Flood'], right: 0, anonymous: false },
  ...more,
});

function asking(more: Partial<Question> = {}, how: { seconds?: number; live?: boolean } = {}) {
  const room = lecture();
  room.do(maren, { type: 'ask', question: question(more), ...how });
  return { room, id: questionOn(room.state)!.id };
}

/** A page's room, made of what it is told alone, from the beginning of the class. */
const pageOf = (
  room: { events: readonly Parameters<typeof evolve>[1][]; state: RoomState },
  of: typeof ana,
) =>
  room.events.reduce<RoomState>(
    (state, event) => {
      const told = audience(event, of, room.state);
      return told ? evolve(state, told) : state;
    },
    snapshotFor(lecture().state, of),
  );

test('each answers once, and the last counts; who teaches does not answer, and afterwards nobody does', () => {
  const { room, id } = asking();
  room.do(ana, { type: 'answer', question: id, answer: 1 });
  room.do(ana, { type: 'answer', question: id, answer: 0 });
  expect(room.do(ana, { type: 'answer', question: id, answer: 0 })).toMatchObject({ events: [] });
  expect(room.refusal(maren, { type: 'answer', question: id, answer: 0 })?.code).toBe('not-asked');
  expect(room.refusal(ben, { type: 'answer', question: id, answer: 2 })?.code).toBe('no-answer');
  expect(room.refusal(ben, { type: 'answer', question: id + 1, answer: 0 })?.code).toBe('too-late');
  room.do(maren, { type: 'closeAnswers' });
  expect(room.refusal(ben, { type: 'answer', question: id, answer: 0 })?.code).toBe('too-late');
  expect(Object.values(roundOf(questionOn(room.state)!).answers).map((a) => a.answer)).toEqual([0]);
});

test('a student knows neither the right answer nor the others’, until they are shown', () => {
  const { room, id } = asking();
  room.do(ana, { type: 'answer', question: id, answer: 1 });
  for (const seen of [snapshotFor(room.state, ben), pageOf(room, ben)]) {
    const on = seen.questions.asked.at(-1)!;
    expect(on.question.right).toBeNull();
    expect(roundOf(on)).toMatchObject({ answers: {}, tally: null });
  }
  expect(pageOf(room, ana).questions).toEqual(snapshotFor(room.state, ana).questions);
  room.do(maren, { type: 'showAnswers', right: true });
  for (const seen of [snapshotFor(room.state, ben), pageOf(room, ben)]) {
    const on = seen.questions.asked.at(-1)!;
    expect(on.question.right).toBe(0);
    expect(roundOf(on)).toMatchObject({ answers: {}, tally: { answered: 1, counts: [0, 1] }, shown: true });
  }
});

test('where no names are kept, those who teach count every answer and know nobody’s', () => {
  const { room, id } = asking({ anonymous: true });
  room.do(ana, { type: 'answer', question: id, answer: 1 });
  room.do(ben, { type: 'answer', question: id, answer: 1 });
  room.do(ana, { type: 'answer', question: id, answer: 0 });
  for (const seen of [snapshotFor(room.state, maren), pageOf(room, maren)]) {
    const { answers } = roundOf(questionOn(seen)!);
    expect(Object.values(answers).map((a) => a.answer)).toEqual([0, 1]);
    expect(JSON.stringify(answers)).not.toMatch(/ana|ben/);
  }
  // Nor does a recording say it, or the log.
  expect(JSON.stringify(heardBy(room.events, maren).filter((e) => e.type === 'answered'))).not.toMatch(
    /ana|ben/,
  );
});

test('by the clock it closes itself; those who have answered are told of the others meanwhile', () => {
  const { room, id } = asking({}, { seconds: 60, live: true });
  expect(nextDue(room.state)?.events).toMatchObject([{ type: 'answersClosed', by: null }]);
  room.do(ana, { type: 'answer', question: id, answer: 1 });
  const { at, events } = nextDue(room.state)!;
  expect(at).toBe(room.events.at(-1)!.at + 2000);
  room.happen(...events);
  expect(audience(room.events.at(-1)!, ben, room.state)).toBeNull();
  expect(audience(room.events.at(-1)!, ana, room.state)).toMatchObject({ tally: { counts: [0, 1] } });
  // Nothing new: the next is its end.
  const end = nextDue(room.state)!;
  expect(end.at).toBe(questionOn(room.state)!.at + 60_000);
  room.happen(...dueBy(room.state, end.at));
  expect(room.refusal(ben, { type: 'answer', question: id, answer: 0 })?.code).toBe('too-late');
  expect(nextDue(room.state)).toBeNull();
});

test('whoever changes an answer again and again keeps nobody from being told', () => {
  const { room, id } = asking({}, { live: true });
  const answer = (of: typeof ana, value: number) =>
    room.do(of, { type: 'answer', question: id, answer: value });
  answer(ana, 0);
  const { at } = nextDue(room.state)!;
  for (let i = 0; i < 5; i++) answer(ben, i % 2);
  expect(nextDue(room.state)!.at).toBe(at);
  expect(dueBy(room.state, at)).toMatchObject([{ type: 'tallied', tally: { answered: 2 } }]);
});

test('it is asked again with both rounds kept, another takes its place, and it is put away', () => {
  const { room, id } = asking();
  expect(room.do(maren, { type: 'askAgain' })).toMatchObject({ events: [] });
  room.do(ana, { type: 'answer', question: id, answer: 1 });
  room.do(maren, { type: 'showAnswers', right: false });
  room.do(maren, { type: 'askAgain', seconds: 30 });
  room.do(ana, { type: 'answer', question: id, answer: 0 });
  room.do(maren, { type: 'showAnswers', right: true });
  expect(questionOn(room.state)!.rounds.map((r) => r.tally!.counts)).toEqual([
    [0, 1],
    [1, 0],
  ]);
  room.do(maren, { type: 'askAgain' });
  room.do(maren, { type: 'ask', question: question({ text: 'Another' }) });
  expect(room.events.slice(-2).map((e) => e.type)).toEqual(['answersClosed', 'asked']);
  room.do(maren, { type: 'putAway' });
  expect(room.state.questions.on).toBeNull();
  expect(room.state.questions.asked).toHaveLength(2);
  expect(room.refusal(maren, { type: 'showAnswers', right: false })?.code).toBe('nothing-asked');
});

test('what somebody answered who is not to be kept is in nothing of a recording, and is counted', () => {
  const { room, id } = asking({ kind: 'words', options: [], right: null });
  room.do(ana, { type: 'answer', question: id, answer: 'I am Ana and it is ebb' });
  room.do(ben, { type: 'answer', question: id, answer: 'Ebb' });
  room.do(maren, { type: 'showAnswers', right: false });
  const kept = maskedFor(room.events, new Set(['ana']));
  expect(JSON.stringify(kept)).not.toContain('I am Ana');
  expect(kept.at(-1)).toMatchObject({ tally: { answered: 2, groups: [{ text: 'Ebb', count: 1 }] } });
});

test('a place is asked for on what everybody has before them, and told with nobody’s name', () => {
  const room = lecture();
  const where: Question = {
    text: 'Where does it turn first?',
    kind: 'point',
    options: [],
    right: null,
    anonymous: false,
  };
  expect(room.refusal(maren, { type: 'ask', question: where })?.code).toBe('no-picture');
  room.do(maren, { type: 'setFront', tool: 'board' });
  room.do(maren, { type: 'turnBoard', side: 3 });
  room.do(maren, { type: 'ask', question: where });
  const asked = questionOn(room.state)!;
  expect(asked.question.picture).toEqual({ of: 'board', side: 3 });
  const give = (who: typeof ana, x: number, y: number) =>
    room.do(who, { type: 'answer', question: asked.id, answer: { x, y } });
  give(ana, 0.9, 0.1);
  give(ben, 0.2, 0.5);
  for (const answer of [{ x: 1.1, y: 0 }, 3, 'there', [1]])
    expect(room.refusal(ana, { type: 'answer', question: asked.id, answer })?.code).toBe('no-answer');
  // Until it is shown nobody has another's.
  expect(JSON.stringify(snapshotFor(room.state, ben))).not.toContain('0.9');
  room.do(maren, { type: 'showAnswers', right: false });
  expect(roundOf(questionOn(pageOf(room, ben))!).tally).toEqual({
    answered: 2,
    points: [
      { x: 0.2, y: 0.5 },
      { x: 0.9, y: 0.1 },
    ],
  });
  // A page that is before everybody is the picture then.
  const deck = { id: 'a'.repeat(64), name: 'Chart', kind: 'picture' as const, pages: 4 };
  room.do(maren, { type: 'showSlides', deck, page: 2 });
  room.do(maren, { type: 'ask', question: where });
  expect(questionOn(room.state)!.question.picture).toEqual({ of: 'page', deck, page: 2 });
  // Of somebody who is in no recording nothing can be read, though it is counted.
  const told = maskedFor(room.events, new Set(['ana'])).filter((e) => e.type === 'answersShown');
  expect(told).toMatchObject([{ tally: { answered: 2, points: [{ x: 0.2, y: 0.5 }] } }]);
});
