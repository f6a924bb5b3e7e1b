import { importOf, readAndCompare, summaryOf, type ListAnswer } from '@nimble-bell/core/roster';
import { answerQuestions } from '../app/askWorker';
import type { ListQuestion, ReadOrder } from './listReader';

let last: { answer: ListAnswer; settled: ReadOrder['settled'] } | null = null;

function answerTo(question: ListQuestion): unknown {
  if ('save' in question)
    return JSON.stringify(importOf(last!.answer.comparison, new Map(last!.settled), question.save));
  const { fields, mended, settled, ...rest } = question.read;
  const answer = readAndCompare({
    ...rest,
    ...(fields ? { fields } : {}),
    mended: new Map(mended),
    settled: new Map(settled),
  });
  last = { answer, settled };
  return summaryOf(answer);
}

/** Reads a class list off the page's thread. */
answerQuestions(answerTo);
