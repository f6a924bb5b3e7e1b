import { z } from 'zod';
import { Answer, GivenAnswer, Question, StoredQuestion, Tally } from '../../questions/schema';
import { MemberId, message } from '../kernel/schema';

const Seconds = z.int().min(5).max(3600).nullable();
const Id = z.int().min(1);

export const questionsCommands = {
  /** `live`: those who have answered see how the others answer. It takes the place of the one that is on. */
  ask: message('ask', {
    question: Question,
    seconds: Seconds.optional(),
    live: z.boolean().optional(),
    /** The prepared one that it is. */
    prepared: z.string().max(20).optional(),
  }),
  /** The answer to the question that is on; given again, the last counts. */
  answer: message('answer', { question: Id, answer: GivenAnswer }),
  closeAnswers: message('closeAnswers', {}),
  /** What was answered is shown to everybody; with the right answer, where that is wished. */
  showAnswers: message('showAnswers', { right: z.boolean() }),
  askAgain: message('askAgain', { seconds: Seconds.optional() }),
  /** It is on nobody's page any more; what was answered is kept. */
  putAway: message('putAway', {}),
};

export const questionsEvents = {
  asked: message('asked', {
    by: MemberId,
    question: StoredQuestion,
    seconds: z.number().nullable(),
    live: z.boolean(),
    prepared: z.string().optional(),
  }),
  answered: message('answered', { member: MemberId, question: Id, answer: Answer }),
  /** What was answered so far, for those who have. */
  tallied: message('tallied', { question: Id, tally: Tally }),
  /** By nobody: its time was over. */
  answersClosed: message('answersClosed', { by: MemberId.nullable(), question: Id }),
  answersShown: message('answersShown', {
    by: MemberId,
    question: Id,
    tally: Tally,
    right: Answer.nullable(),
  }),
  askedAgain: message('askedAgain', { by: MemberId, question: Id, seconds: z.number().nullable() }),
  questionPutAway: message('questionPutAway', { by: MemberId, question: Id }),
};
