import { Text } from '@mantine/core';
import type { PreparedQuestion } from '@nimble-bell/core/api';
import { useAsked } from '../../../app/queries';
import { useInfo, useInside, type Inside } from '../../live/useRoom';
import classes from './questions.module.css';

const select = ({ room: { runSheet } }: Inside) =>
  runSheet.at === null ? null : (runSheet.segments[runSheet.at]?.title ?? null);

/** What was prepared for this course: first what belongs to the part of the class that is on; one press asks it. */
export function Prepared({ ask }: { ask: (question: PreparedQuestion) => void }) {
  const { course } = useInfo();
  const part = useInside(select);
  const { data } = useAsked<PreparedQuestion[]>(`/courses/${course.id}/questions`);
  if (!data?.length) return null;
  const rank = (q: PreparedQuestion) => (q.part && q.part === part ? 0 : q.part ? 2 : 1);
  const sorted = data.toSorted(
    (a, b) => rank(a) - rank(b) || Number(a.askedAt !== null) - Number(b.askedAt !== null),
  );
  return (
    <div>
      <Text size="sm" fw={650} mb={4}>
        Prepared
      </Text>
      <ul className={classes.prepared} aria-label="Prepared questions">
        {sorted.map((q) => (
          <li key={q.id}>
            <button type="button" onClick={() => ask(q)}>
              {q.question.text}
              <small>{[q.part, q.askedAt !== null && 'asked before'].filter(Boolean).join(', ')}</small>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
