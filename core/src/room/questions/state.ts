import type { Answer, Question, Tally } from '../../questions/index';

/** What somebody answered last. */
export interface Given {
  answer: Answer;
  at: number;
  /** The event with which they answered first. */
  first: number;
}

/** One time of answering a question. */
export interface Round {
  from: number;
  /** When it ends by itself, an instant; null where a teacher ends it. */
  until: number | null;
  closedAt: number | null;
  /** By member; of an anonymous one, for those who teach, by a number that is nobody's. */
  answers: Readonly<Record<string, Given>>;
  /** What the class may know of it; null until it is shown, or told to those who have answered. */
  tally: Tally | null;
  /** When those who have answered were told of it last. */
  toldAt: number | null;
  /** Whether everybody has been shown it. */
  shown: boolean;
}

export interface AskedQuestion {
  /** The number of the event that asked it. */
  id: number;
  by: string;
  at: number;
  question: Question;
  /** Those who have answered see what the others answered while it comes. */
  live: boolean;
  rightShown: boolean;
  /** The last is the one that is on, or was. */
  rounds: readonly Round[];
}

export interface QuestionsState {
  /** In the order of asking. */
  asked: readonly AskedQuestion[];
  /** Which of them everybody looks at; null where none. */
  on: number | null;
}
