import {
  importOf,
  readAndCompare,
  rowsOf,
  summaryOf,
  withoutWorkbooks,
  type ListAnswer,
} from '@nimble-bell/core/roster';
import { answerQuestions } from '../app/askWorker';
import type { ListQuestion, ReadOrder } from './listReader';

let last: { answer: ListAnswer; settled: ReadOrder['settled'] } | null = null;

async function read({ fields, mended, settled, files, ...rest }: ReadOrder) {
  const answer = readAndCompare({
    ...rest,
    files: await withoutWorkbooks(files),
    ...(fields ? { fields } : {}),
    mended: new Map(mended),
    settled: new Map(settled),
  });
  last = { answer, settled };
  return summaryOf(answer);
}

/** Reads a class list off the page's thread. */
answerQuestions((question: ListQuestion) => {
  if ('read' in question) return read(question.read);
  const { answer, settled } = last!;
  if ('save' in question) return JSON.stringify(importOf(answer.comparison, new Map(settled), question.save));
  const { kind, from, count } = question.more;
  return rowsOf(answer, kind, from, count);
});
